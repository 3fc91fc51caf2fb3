import type { Part, PartFile, PhotoPart, Piece } from '@nibquill/contract'
import type { Page } from '@playwright/test'

/** The photos among the parts of a piece, each with what is known of its file. */
export const photosOf = (parts: readonly Part[]): (PhotoPart & PartFile)[] =>
  parts.flatMap((part) => (part.kind === 'photo' ? [{ ...part, ...part.files.picture }] : []))

/** A piece as the school has it, asked by whoever is on the page. */
export const pieceOf = (page: Page, id: string): Promise<Piece> =>
  page.evaluate(async (id) => (await fetch(`/api/pieces/${id}`)).json() as Promise<Piece>, id)
