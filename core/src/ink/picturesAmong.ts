import type { Thing } from './document.ts'

/** Pictures some things are, each once. */
export const picturesAmong = (things: readonly Thing[]): string[] => [
  ...new Set(things.flatMap((thing) => (thing.kind === 'picture' ? [thing.mediaId] : []))),
]
