/** What a file is, whatever it hangs on. */
export const MEDIA_KINDS = ['picture', 'ink', 'sound', 'film', 'paper'] as const
export type MediaKind = (typeof MEDIA_KINDS)[number]

/**
 * What a file is sent for: to become part of a piece, to hang on a task or a notice, or for its
 * pages to be drawn on.
 */
export const MEDIA_USES = ['part', 'attachment', 'pages'] as const
export type MediaUse = (typeof MEDIA_USES)[number]

const MEGABYTE = 1024 * 1024

/** How long a school keeps films as they were sent, beside what every browser plays. */
export const FILM_ORIGINALS = ['always', 'until-term-end'] as const
export type FilmOriginals = (typeof FILM_ORIGINALS)[number]

/** Of a paper, from its first page on: what lies further back is not shown. */
export const MOST_PAGES = 40

/** Longest edges of the upright sizes made of each picture: in a list, on a tablet, on a large screen. */
export const PICTURE_SIZES = [320, 960, 2048] as const
export type PictureSize = (typeof PICTURE_SIZES)[number]

const PICTURE_FORMS = ['320', '960', '2048'] as const satisfies readonly `${PictureSize}`[]
/** `playable`: every browser plays it, and all are as loud. `peaks`: what is drawn of it. */
const SOUND_FORMS = ['playable', 'peaks'] as const
/** Pages of a paper, from the first; as many are made as it has. */
export const PAGE_FORMS = Array.from({ length: MOST_PAGES }, (_, i) => `page-${i + 1}` as const)
/** A talk-through as a film; made of its ink when somebody asks for it. */
export const FILM_OF_TALK = 'as-film'
/** What is made of a file for those who look or listen; the file itself stays as it is. */
export const MEDIA_FORMS = [...PICTURE_FORMS, ...SOUND_FORMS, ...PAGE_FORMS, FILM_OF_TALK] as const
export type MediaForm = (typeof MEDIA_FORMS)[number]

type KindFacts = {
  /** Types a file is kept as, each with the ending of its name; told from the bytes, never from the name. */
  types: Readonly<Record<string, string>>
  /** Types that are taken as well and turned into one of the others on arrival. */
  turned: readonly string[]
  /** What is longer is refused. */
  mostBytes: number
  /** What it may be sent for; a kind that is made nowhere yet may be sent for nothing. */
  uses: readonly MediaUse[]
  /** What is always made of it. Pictures of a film are of a moment in it; of a paper, its first page. */
  forms: readonly MediaForm[]
}

/** Everything that is said once about each kind of file. */
export const MEDIA = {
  /** A 48-megapixel phone photo at its best quality is about 25 MB; a scanned A3 page about 40 MB. */
  picture: {
    types: { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/webp': 'webp', 'image/gif': 'gif' },
    turned: ['image/heic', 'image/heif'],
    mostBytes: 60 * MEGABYTE,
    uses: ['part', 'attachment'],
    forms: PICTURE_FORMS,
  },
  /** Strokes as data: 300 of them with 100 points each are under half a megabyte. */
  ink: {
    types: { 'application/json': 'json' },
    turned: [],
    mostBytes: 5 * MEGABYTE,
    uses: ['part'],
    forms: PICTURE_FORMS,
  },
  /** An hour of speech at 64 kbit/s is 29 MB. */
  sound: {
    types: { 'audio/webm': 'webm', 'audio/ogg': 'ogg', 'audio/mp4': 'm4a' },
    turned: [],
    mostBytes: 60 * MEGABYTE,
    uses: ['part', 'attachment'],
    forms: SOUND_FORMS,
  },
  /** Two minutes as a phone films them in high definition are 130 to 350 MB. */
  film: {
    types: { 'video/mp4': 'mp4', 'video/webm': 'webm', 'video/quicktime': 'mov' },
    turned: [],
    mostBytes: 400 * MEGABYTE,
    uses: ['part', 'attachment'],
    forms: [...PICTURE_FORMS, ...SOUND_FORMS],
  },
  paper: {
    types: { 'application/pdf': 'pdf' },
    turned: [],
    mostBytes: 60 * MEGABYTE,
    uses: ['part', 'attachment', 'pages'],
    forms: PICTURE_FORMS,
  },
} as const satisfies Record<MediaKind, KindFacts>

/** A type as it is stored. */
export type MediaType = { [K in MediaKind]: keyof (typeof MEDIA)[K]['types'] }[MediaKind] & string

const KIND_OF_TYPE = new Map(
  MEDIA_KINDS.flatMap((kind) =>
    Object.keys(MEDIA[kind].types).map((type) => [type, kind] as const),
  ),
)
const ENDING_OF_TYPE = new Map<string, string>(
  MEDIA_KINDS.flatMap((kind) => Object.entries<string>(MEDIA[kind].types)),
)

/** @returns what a stored file is */
export const kindOfType = (type: MediaType): MediaKind => KIND_OF_TYPE.get(type)!
/** @returns the ending of a stored file's name, without a dot */
export const endingOf = (type: MediaType): string => ENDING_OF_TYPE.get(type)!

/** The form that shows a page. @param page - From 1 to {@link MOST_PAGES}. */
export const pageForm = (page: number): MediaForm => PAGE_FORMS[page - 1]!
/** Whether the file itself stands in for a form that is not there. */
export const mayStandIn = (kind: MediaKind, form: MediaForm): boolean =>
  form !== FILM_OF_TALK && (kind === 'picture' || kind === 'ink' || form === 'playable')
export const formsOf = (kind: MediaKind): readonly MediaForm[] => MEDIA[kind].forms
export const mayBeSentFor = (use: MediaUse, kind: MediaKind): boolean =>
  (MEDIA[kind].uses as readonly MediaUse[]).includes(use)
/** The longest file anybody may send for something. */
export const mostBytesFor = (use: MediaUse): number =>
  Math.max(
    ...MEDIA_KINDS.filter((kind) => mayBeSentFor(use, kind)).map((kind) => MEDIA[kind].mostBytes),
  )

/** What a file dialogue offers for a kind: types and endings, as an input element takes them. */
export function acceptOf(kind: MediaKind): string {
  const { types, turned } = MEDIA[kind]
  return [
    ...Object.keys(types),
    ...turned,
    ...turned.map((type) => `.${type.slice(type.indexOf('/') + 1)}`),
  ].join(',')
}
