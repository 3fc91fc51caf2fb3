import * as v from 'valibot'

/**
 * Every refusal, as `application/problem+json`.
 * `type` is `/problems/<code>` and stable: whoever shows it words it from the code. `title` says it
 * in plain English, for logs and for those who build on the API. `fields` lists what is wrong with
 * each bad input, by its path, as `Fault` of core writes it.
 * @see RFC 9457
 */
export const Problem = v.looseObject({
  type: v.string(),
  title: v.string(),
  status: v.pipe(v.number(), v.integer()),
  fields: v.optional(v.record(v.string(), v.array(v.string()))),
})
export type Problem = v.InferOutput<typeof Problem>
