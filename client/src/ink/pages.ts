import { MadePage } from '@nibquill/contract'
import { MOST_PAGES } from '@nibquill/core'
import { emptySheet, SHEET_SIZE, type InkSheet } from '@nibquill/core/ink/document'
import { v7 as newId } from 'uuid'
import { api } from '../api/api'
import { hashOf, transfer } from '../media/transfer'

export const isPaper = ({ type, name }: File): boolean =>
  type === 'application/pdf' || /\.pdf$/i.test(name)

/**
 * The pages of a paper that was picked, as `pagesAtSchool` gives them.
 * @throws ProblemError when the school cannot open it; Error when it is out of reach
 */
export async function* pagesOf(file: File): AsyncGenerator<MadePage> {
  const paperId = newId()
  const what = { mediaId: paperId, name: file.name, hash: await hashOf(file) }
  await transfer({ ...what, use: 'pages' }, file, new AbortController().signal, () => undefined)
  yield* pagesAtSchool(paperId)
}

/**
 * The pages of a paper the school has, from the first on, as pictures it makes of them: one after
 * the other, and no more than are wanted.
 * @throws ProblemError when the school cannot open it; Error when it is out of reach
 */
export async function* pagesAtSchool(paperId: string): AsyncGenerator<MadePage> {
  let pages = 1
  for (let page = 1; page <= Math.min(pages, MOST_PAGES); page++) {
    const made = await api.post(`/media/${paperId}/pages/${page}`, MadePage, { mediaId: newId() })
    pages = made.pages
    yield made
  }
}

/** A sheet with a page on it, held there: what moves is what is drawn and put on it. */
export function sheetWithPage({ mediaId, width, height }: MadePage): InkSheet {
  const share = SHEET_SIZE.width / Math.max(width, height)
  const [wide, high] = [Math.round(width * share), Math.round(height * share)]
  return {
    ...emptySheet(newId()),
    ...{ width: wide, height: high },
    things: [
      {
        ...{ kind: 'picture', id: newId(), mediaId, width: wide, height: high, locked: true },
        ...{ at: { x: Math.round(wide / 2), y: Math.round(high / 2) }, turn: 0 },
      },
    ],
  }
}
