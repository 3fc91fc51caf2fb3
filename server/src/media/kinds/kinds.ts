import type { MediaForm, MediaKind, MediaType } from '@nibquill/core'
import path from 'node:path'
import pLimit from 'p-limit'
import type { Sniffed } from '../sniff.ts'
import { makeFilmForms, takeFilm } from './film.ts'
import { makeInkSizes, takeInk } from './ink.ts'
import { makeSizes } from './makeSizes.ts'
import { makePages, takePaper } from './paper.ts'
import { takePicture } from './picture.ts'
import { copyStreams, makeSoundForms } from './sound.ts'

/** A file as it is kept: the one that was sent, or a cleaned one beside it. */
export type Kept = {
  file: string
  type: MediaType
  width: number
  height: number
  /** Of a paper. */
  pages?: number | null
}

/** What was made of a file. */
export type MadeForm = {
  form: MediaForm
  file: string
  type: string
  ending: string
  width: number | null
  height: number | null
  durationMs: number | null
}

type KindWork = {
  /** Cleans what arrived. @param scratch - A folder of its own for what is written on the way. */
  takeIn: (file: string, sniffed: Sniffed, scratch: string) => Promise<Kept>
  /**
   * Makes the forms named in core, and a paper's pages.
   * @param scratch - A folder of its own for what is made.
   */
  makeForms: (file: string, scratch: string, means: Means) => Promise<MadeForm[]>
}
/**
 * `pictureOf`: a picture that lies on it, as a JPEG; null where there is none. `onPercent`: how far it
 * is, where that takes long.
 */
export type Means = { pictureOf: PictureOf; onPercent: (percent: number) => void }
export type PictureOf = (mediaId: string) => Promise<Buffer | null>

/** Outside programs, one at a time: a class sending at once must not take the whole machine. */
export const outside = pLimit(1)

/** What the server does with each kind of file. */
export const KIND_WORK: Record<MediaKind, KindWork> = {
  picture: { takeIn: takePicture, makeForms: makeSizes },
  ink: {
    takeIn: takeInk,
    makeForms: (file, scratch, { pictureOf }) => makeInkSizes(file, scratch, pictureOf),
  },
  sound: {
    takeIn: (file, { type }, scratch) =>
      outside(async () => {
        const clean = path.join(scratch, 'clean')
        await copyStreams(file, type, clean)
        return { file: clean, type, width: 0, height: 0 }
      }),
    makeForms: (file, scratch) => outside(() => makeSoundForms(file, scratch)),
  },
  film: {
    takeIn: (file, { type }, scratch) => outside(() => takeFilm(file, type, scratch)),
    makeForms: (file, scratch, { onPercent }) => makeFilmForms(file, scratch, onPercent),
  },
  paper: {
    takeIn: (file, _sniffed, scratch) => outside(() => takePaper(file, scratch)),
    makeForms: (file, scratch) => outside(() => makePages(file, scratch)),
  },
}
