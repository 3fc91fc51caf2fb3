import type { Part } from '@nibquill/contract'
import { hostOf, type PartKind } from '@nibquill/core'
import { shareOutWriting, type WritingPages } from '@nibquill/core/book/setWriting'
import { UNITS_PER_MM, type InkDocument } from '@nibquill/core/ink/document'
import type { MediaFormRow } from '../media/rows.ts'
import type { SharedPieceRow } from '../portfolio/sharedPieces.ts'
import { strings } from './strings.ts'

/** How a part stands on paper. */
export type Printed =
  | { as: 'picture'; word: string; key: string; width: number; height: number }
  /**
   * `key` reads an ink document; its sheet, from 0, is as large as said, in points. `pictureKey`
   * reads what lies on it.
   */
  | {
      as: 'ink'
      key: string
      sheet: number
      width: number
      height: number
      pictureKey: (mediaId: string) => string | undefined
    }
  | { as: 'text'; text: string }
  /** What paper cannot hold: its word, and the code that leads to it. */
  | { as: 'code'; word: string }
  /** A page elsewhere: its word, and the code of its own address. */
  | { as: 'link'; word: string; address: string }

type Of<K extends PartKind> = Extract<Part, { kind: K }>
/** What is known of the files of a piece: the form that is printed, and where a file itself lies. */
export type Files = {
  formOf: (mediaId: string) => MediaFormRow | undefined
  pagesOf: (mediaId: string) => MediaFormRow[]
  keyOf: (mediaId: string) => string | undefined
}
/** Before anything is drawn. */
const NO_FILES: Files = { formOf: () => undefined, pagesOf: () => [], keyOf: () => undefined }

/** What the book prints of each kind of part. A new kind is another entry here. */
export const PRINT: { [K in PartKind]: (part: Of<K>, files: Files) => Printed[] } = {
  photo: ({ files, width, height }, { formOf }) => {
    const form = formOf(files.picture.mediaId)
    return form
      ? [
          {
            as: 'picture',
            word: strings.parts.photo,
            key: form.key,
            width: form.width ?? width,
            height: form.height ?? height,
          },
        ]
      : [{ as: 'code', word: strings.parts.photo }]
  },
  drawing: ({ files, width, height, sheets: count }, { keyOf, formOf }) => {
    const drawn = sheets(keyOf(files.ink.mediaId), { width, height, count }, formOf)
    return drawn.length > 0 ? drawn : [{ as: 'code', word: strings.parts.drawing }]
  },
  writing: ({ text }) => [{ as: 'text', text }],
  voice: (part) => [{ as: 'code', word: strings.parts.voice }, ...said(part)],
  // The sheet as it was left, and the code that plays how it came.
  talk: ({ files, width, height, ...words }, { keyOf, formOf }) => [
    ...sheets(keyOf(files.ink.mediaId), { width, height, count: 1 }, formOf),
    { as: 'code', word: strings.parts.talk },
    ...said(words),
  ],
  // A moment of it, and the code that plays it.
  film: ({ files, ...words }, { formOf }) => [
    ...picture(strings.parts.film, formOf((files.poster ?? files.film).mediaId)),
    { as: 'code', word: strings.parts.film },
    ...said(words),
  ],
  page: ({ files, pages }, { pagesOf }) => {
    const shown = pagesOf(files.paper.mediaId)
      .slice(0, PAGES_SHOWN)
      .flatMap((form) => picture(strings.parts.page, form))
    const rest = shown.length === 0 || pages > PAGES_SHOWN
    return [...shown, ...(rest ? [{ as: 'code', word: strings.parts.page } as const] : [])]
  },
  link: ({ name, address }) => [
    { as: 'link', word: [name, hostOf(address)].filter(Boolean).join(' · '), address },
  ],
}

/** Sheets of an ink document that is there. */
const sheets = (
  key: string | undefined,
  { width, height, count }: { width: number; height: number; count: number },
  formOf: Files['formOf'],
): Printed[] =>
  key === undefined
    ? []
    : Array.from({ length: count }, (_, sheet) => inkSheet(key, sheet, { width, height }, formOf))

/** One sheet of an ink document, as large as it was drawn. */
const inkSheet = (
  key: string,
  sheet: number,
  { width, height }: { width: number; height: number },
  formOf: Files['formOf'],
): Printed => ({
  ...{ as: 'ink', key, sheet, pictureKey: (mediaId) => formOf(mediaId)?.key },
  ...{ width: pointsOf(width), height: pointsOf(height) },
})

/** What is said in it, for those who hold the paper. */
const said = ({ text, typed }: { text: string; typed: string }): Printed[] => {
  const words = text.trim() === '' ? typed : text
  return words.trim() === '' ? [] : [{ as: 'text', text: words }]
}

/** So many of a paper's pages can still be read on one of the book's. */
const PAGES_SHOWN = 4

const picture = (word: string, form: MediaFormRow | undefined): Printed[] =>
  form?.width && form.height
    ? [{ as: 'picture', word, key: form.key, width: form.width, height: form.height }]
    : []

/** A millimetre on paper, in points. */
const POINTS_PER_MM = 72 / 25.4
export const pointsOf = (units: number): number => (units / UNITS_PER_MM) * POINTS_PER_MM

/** The largest form of a picture, which is as fine as paper shows. */
export const PRINT_FORM = '2048'

/** What stands on paper of a part: one thing, or a drawing's sheets. */
export const printPart = (part: Part, files: Files): Printed[] =>
  (PRINT[part.kind] as (part: Part, files: Files) => Printed[])(part, files)

/** A copy that was written on, in the place of its part. @param key - Reads its ink. */
export const printMarked = (key: string, { sheets }: InkDocument, { formOf }: Files): Printed[] =>
  sheets.map((size, sheet) => inkSheet(key, sheet, size, formOf))

/** How a piece's writings are set, known before anything is drawn. */
export function writingOf(
  printed: readonly Printed[],
  words: { reflection: string; reason: string },
): WritingPages {
  return shareOutWriting(
    printed.flatMap((one) => (one.as === 'text' ? [one.text] : [])),
    {
      pictures: printed.some(({ as }) => as !== 'text'),
      letters: words.reflection.length + words.reason.length,
    },
  )
}

/** How many pages a piece will have. */
export function countPages({ parts, reflection, reason }: SharedPieceRow): number {
  const printed = parts.flatMap((part) => printPart(part, NO_FILES))
  return 1 + writingOf(printed, { reflection, reason: reason ?? '' }).more.length
}
