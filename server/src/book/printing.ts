import type { Part } from '@nibquill/contract'
import { type PartKind } from '@nibquill/core'
import { shareOutWriting, type WritingPages } from '@nibquill/core/book/setWriting'
import { UNITS_PER_MM } from '@nibquill/core/ink/document'
import type { MediaFormRow } from '../media/rows.ts'
import type { SharedPieceRow } from '../portfolio/sharedPieces.ts'
import { strings } from './strings.ts'

/** How a part stands on paper. */
export type Printed =
  | { as: 'picture'; key: string; width: number; height: number }
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

type Of<K extends PartKind> = Extract<Part, { kind: K }>
/** What is known of the files of a piece: the form that is printed, and where a file itself lies. */
export type Files = {
  formOf: (mediaId: string) => MediaFormRow | undefined
  keyOf: (mediaId: string) => string | undefined
}
/** Before anything is drawn. */
const NO_FILES: Files = { formOf: () => undefined, keyOf: () => undefined }

/** What the book prints of each kind of part. A new kind is another entry here. */
export const PRINT: { [K in PartKind]: (part: Of<K>, files: Files) => Printed[] } = {
  photo: ({ files, width, height }, { formOf }) => {
    const form = formOf(files.picture.mediaId)
    return form
      ? [
          {
            as: 'picture',
            key: form.key,
            width: form.width ?? width,
            height: form.height ?? height,
          },
        ]
      : [{ as: 'code', word: strings.parts.photo }]
  },
  drawing: ({ files, width, height, sheets }, { keyOf, formOf }) => {
    const key = keyOf(files.ink.mediaId)
    if (!key) return [{ as: 'code', word: strings.parts.drawing }]
    const pictureKey = (mediaId: string) => formOf(mediaId)?.key
    return Array.from({ length: sheets }, (_, sheet) => ({
      ...{ as: 'ink', key, sheet, pictureKey },
      ...{ width: pointsOf(width), height: pointsOf(height) },
    }))
  },
  writing: ({ text }) => [{ as: 'text', text }],
  voice: () => [{ as: 'code', word: strings.parts.voice }],
}

/** A millimetre on paper, in points. */
const POINTS_PER_MM = 72 / 25.4
export const pointsOf = (units: number): number => (units / UNITS_PER_MM) * POINTS_PER_MM

/** The largest form of a picture, which is as fine as paper shows. */
export const PRINT_FORM = '2048'

/** What stands on paper of a part: one thing, or a drawing's sheets. */
export const printPart = (part: Part, files: Files): Printed[] =>
  (PRINT[part.kind] as (part: Part, files: Files) => Printed[])(part, files)

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
