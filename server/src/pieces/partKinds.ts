import type { AddPart, Part, PartFile } from '@nibquill/contract'
import { readAddress, type PartFileRole, type PartKind, type Tidying } from '@nibquill/core'

/** What each kind keeps of a part beside its files. */
type Contents = {
  /** `tidying`: how what the camera saw became this. */
  photo: { tidying?: Tidying }
  /** How many sheets, where there is more than one. */
  drawing: { sheets?: number }
  writing: { text: string }
  /** `text`: what is said in it, where somebody has typed that. */
  /** `heard`: without the silence at its ends. */
  voice: { text?: string; heard?: { fromMs: number; toMs: number } }
  talk: { text?: string }
  film: { text?: string }
  page: Record<string, never>
  link: { address: string }
}
export type PartContent = Contents[PartKind]

/** A file of a part as it is read from the tables. */
export type FlatFile = PartFile & {
  width: number
  height: number
  pages: number | null
  transcript: string
}
type Files = Partial<Record<PartFileRole, FlatFile>>
type Read<K extends PartKind> = Omit<Extract<Part, { kind: K }>, 'id' | 'name' | 'kind'>
type Added<K extends PartKind> = Extract<AddPart, { kind: K }>

type PartWork<K extends PartKind> = {
  /** Whether there is nothing in it to be judged. */
  isBlank: (content: Contents[K]) => boolean
  /** What is kept of one that is added. */
  contentOf: (input: Added<K>) => Contents[K]
  /** What is said of one that is there. */
  read: (files: Files, content: Contents[K]) => Read<K>
}

/** What the server does with each kind of part. A new kind is another entry here. */
export const PART_WORK: { [K in PartKind]: PartWork<K> } = {
  photo: {
    isBlank: () => false,
    contentOf: ({ instead }) => (instead?.tidying ? { tidying: instead.tidying } : {}),
    read: ({ picture, taken }, { tidying }) => {
      const { width, height, file } = apart(picture!)
      return {
        files: { picture: file },
        width,
        height,
        tidied: taken && tidying ? { originalMediaId: taken.mediaId, tidying } : null,
      }
    },
  },
  drawing: {
    isBlank: () => false,
    contentOf: () => ({}),
    read: ({ ink }, { sheets = 1 }) => {
      const { width, height, file } = apart(ink!)
      return { files: { ink: file }, width, height, sheets }
    },
  },
  writing: {
    isBlank: ({ text }) => text.trim() === '',
    contentOf: ({ text }) => ({ text }),
    read: (_files, { text }) => ({ files: {}, text }),
  },
  voice: {
    isBlank: () => false,
    contentOf: ({ heard }) => (heard ? { heard } : {}),
    read: ({ sound }, { text = '', heard = null }) => {
      const { file, typed } = apart(sound!)
      return { files: { sound: file }, text, typed, heard }
    },
  },
  talk: {
    isBlank: () => false,
    contentOf: () => ({}),
    read: ({ ink, sound }, { text = '' }) => {
      const { width, height, file } = apart(ink!)
      const said = apart(sound!)
      return { files: { ink: file, sound: said.file }, width, height, text, typed: said.typed }
    },
  },
  film: {
    isBlank: () => false,
    contentOf: () => ({}),
    read: ({ film, poster }, { text = '' }) => {
      const { width, height, file, typed } = apart(film!)
      const files = { film: file, ...(poster ? { poster: apart(poster).file } : {}) }
      return { files, width, height, text, typed }
    },
  },
  page: {
    isBlank: () => false,
    contentOf: () => ({}),
    read: ({ paper }) => {
      const { pages, file } = apart(paper!)
      return { files: { paper: file }, pages }
    },
  },
  link: {
    isBlank: () => false,
    contentOf: ({ address }) => {
      const read = readAddress(address)
      return { address: typeof read === 'string' ? address : read.address }
    },
    read: (_files, { address }) => ({ files: {}, address }),
  },
}

/** What is said of a file, and what is said of its part. */
function apart({ width, height, pages, transcript: typed, ...file }: FlatFile) {
  return { width, height, pages: pages ?? 1, typed, file }
}

const workOf = (kind: PartKind) => PART_WORK[kind] as PartWork<PartKind>
export const contentOf = (input: AddPart): PartContent =>
  workOf(input.kind).contentOf(input as never)
export const isBlank = ({ kind, content }: { kind: PartKind; content: PartContent }): boolean =>
  workOf(kind).isBlank(content as never)

/** The words of a part that can have some; null for what has none. */
export const wordsIn = ({
  kind,
  content,
}: {
  kind: PartKind
  content: PartContent
}): string | null =>
  kind === 'writing' || kind === 'voice' || kind === 'talk' || kind === 'film'
    ? ((content as { text?: string }).text ?? '')
    : null

export type FlatPart = {
  part_id: string
  kind: PartKind
  name: string
  files: Files | null
  content: PartContent
}

/** A part as it is answered. */
export function readPart({ part_id: id, kind, name, files, content }: FlatPart): Part {
  return { id, kind, name, ...workOf(kind).read(files ?? {}, content as never) } as Part
}
