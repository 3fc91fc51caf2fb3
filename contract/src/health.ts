import * as v from 'valibot'

const Part = v.picklist(['ok', 'down'])
/** GET /api/health: 200 when all is well, 503 naming what is not. */
export const Health = v.object({
  status: v.picklist(['ok', 'down']),
  database: Part,
  storage: Part,
  queue: Part,
})
export type Health = v.InferOutput<typeof Health>
