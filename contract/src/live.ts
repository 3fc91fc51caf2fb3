import * as v from 'valibot'

/** What may change under somebody's eyes. Each names the queries to ask again. */
export const LIVE_TOPICS = [
  /** A piece went somewhere: begun, handed in, judged, thrown away. */
  'pieces',
  /** What is in a piece changed, by its id, while it stays where it is. */
  'work',
  /** Something was said under a piece, or shown, or hidden. */
  'comments',
  /** A teacher wrote on a copy of what was handed in. */
  'mark-ups',
  'review',
  'notices',
  'portfolio',
  'book',
  'media',
  'sharing',
  'school',
  'tasks',
  'folders',
  'accounts',
] as const
export type LiveTopic = (typeof LIVE_TOPICS)[number]

/** GET /api/live: server-sent events, each `data:` one of these; ids only, never words. */
export const LiveEvent = v.object({ topic: v.picklist(LIVE_TOPICS), id: v.optional(v.string()) })
export type LiveEvent = v.InferOutput<typeof LiveEvent>
