import {
  MyPieces,
  type Part,
  type PartFile,
  type PhotoPart,
  type Piece,
  type PieceLine,
} from '@nibquill/contract'
import type { Page } from '@playwright/test'
import * as v from 'valibot'

/** The photos among the parts of a piece, each with what is known of its file. */
export const photosOf = (parts: readonly Part[]): (PhotoPart & PartFile)[] =>
  parts.flatMap((part) => (part.kind === 'photo' ? [{ ...part, ...part.files.picture }] : []))

/** A piece as the school has it, asked by whoever is on the page. */
export const pieceOf = (page: Page, id: string): Promise<Piece> =>
  page.evaluate(async (id) => (await fetch(`/api/pieces/${id}`)).json() as Promise<Piece>, id)

/** The pupil's piece that was begun last: ids of their making sort by time. */
export const newestOf = async (page: Page): Promise<PieceLine | undefined> => {
  const { pieces } = v.parse(MyPieces, await (await page.request.get('/api/pieces')).json())
  return [...pieces].sort((a, b) => (a.id < b.id ? 1 : -1))[0]
}
