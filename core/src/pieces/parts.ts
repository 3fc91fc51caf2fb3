import type { MediaKind } from '../media/kinds.ts'

/**
 * What a piece can be made of. docs/how-it-works.md tells how to add a kind; a test on each side
 * fails until it is complete everywhere.
 */
export const PART_KINDS = [
  'photo',
  'drawing',
  'writing',
  'voice',
  'talk',
  'film',
  'page',
  'link',
] as const
export type PartKind = (typeof PART_KINDS)[number]

type PartFile = { kind: MediaKind; needed: boolean }
/**
 * The files a part hangs on, each by its role in it. They never change: a photo that is tidied
 * becomes another part, which also holds what was `taken`.
 */
export const PART_FILES = {
  photo: { picture: { kind: 'picture', needed: true }, taken: { kind: 'picture', needed: false } },
  /** `laid`: pictures on it, any number of them. */
  drawing: { ink: { kind: 'ink', needed: true }, laid: { kind: 'picture', needed: false } },
  writing: {},
  voice: { sound: { kind: 'sound', needed: true } },
  /** Drawn while it was said: `ink` and `sound` are on one clock. `laid`: what was drawn on. */
  talk: {
    ink: { kind: 'ink', needed: true },
    sound: { kind: 'sound', needed: true },
    laid: { kind: 'picture', needed: false },
  },
  /** `poster`: what stands for it, where its makers chose that. */
  film: { film: { kind: 'film', needed: true }, poster: { kind: 'picture', needed: false } },
  page: { paper: { kind: 'paper', needed: true } },
  link: {},
} as const satisfies Record<PartKind, Readonly<Record<string, PartFile>>>
export type PartFileRole = { [K in PartKind]: keyof (typeof PART_FILES)[K] }[PartKind] & string
/** Roles whose file whoever may see the part may read; the others are for those who make it. */
export const SHOWN_ROLES = ['picture', 'ink', 'laid', 'sound', 'film', 'poster', 'paper'] as const

/** Of one clip: what a child says in one go. */
export const LONGEST_VOICE_MS = 5 * 60_000
/** Of one film. */
export const LONGEST_FILM_MS = 2 * 60_000

/** About ten handwritten pages. */
export const MAX_WRITING_LENGTH = 20_000

/** What stands for a piece where there is room for one thing: the part its makers put first. */
export const coverOf = <P>(parts: readonly P[]): P | null => parts[0] ?? null

/** A piece holds at most this many parts. */
export const MAX_PARTS = 30
export const MAX_PART_NAME_LENGTH = 200

/**
 * Splits what somebody picked at once into what still fits a piece and what does not. Order is
 * kept.
 */
export function takeWhatFits<T>(
  picked: readonly T[],
  partsThere: number,
): { taken: T[]; left: T[] } {
  const room = Math.max(0, MAX_PARTS - partsThere)
  return { taken: picked.slice(0, room), left: picked.slice(room) }
}

/**
 * An order of parts as somebody left it, applied to the parts there are now: those that came
 * meanwhile go to the end in their own
 * order, those that are gone are passed over. So two tablets never lose each other's parts.
 */
export function orderParts(partIds: readonly string[], wanted: readonly string[]): string[] {
  const there = new Set(partIds)
  const ordered = [...new Set(wanted)].filter((id) => there.has(id))
  const named = new Set(ordered)
  return [...ordered, ...partIds.filter((id) => !named.has(id))]
}
