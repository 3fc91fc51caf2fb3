import * as v from 'valibot'

/**
 * Every refusal, as `application/problem+json`.
 * `type` is `/problems/<code>` and stable; `title` is a sentence a person can act on; `fields`
 * lists each bad input by its path.
 * @see RFC 9457
 */
export const Problem = v.looseObject({
  type: v.string(),
  title: v.string(),
  status: v.pipe(v.number(), v.integer()),
  fields: v.optional(v.record(v.string(), v.array(v.string()))),
})
export type Problem = v.InferOutput<typeof Problem>
