import {
  MyPieces,
  type Part,
  type PartFile,
  type PhotoPart,
  type Piece,
  type PieceLine,
} from '@nibquill/contract'
import type { APIRequestContext, Page } from '@playwright/test'
import { v7 as newId } from 'uuid'
import * as v from 'valibot'
import { expect } from './expect.ts'

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

/** A piece of writing, as far as it is asked for, by whoever is on the page, or asks without one. */
export async function written(
  by: Page | APIRequestContext,
  title: string,
  to: 'draft' | 'tray',
): Promise<string> {
  const request = 'request' in by ? by.request : by
  const headers = 'request' in by ? { Origin: new URL(by.url()).origin } : undefined
  const ask = async (method: 'put' | 'patch' | 'post', address: string, data: object) => {
    const answer = await request[method](`/api/pieces/${address}`, { data, headers })
    expect(answer.status()).toBe(200)
    return (await answer.json()) as Piece
  }
  const [id, partId] = [newId(), newId()]
  await ask('put', id, { taskId: null })
  const text = { kind: 'writing', name: '', text: `${title}. The wind walks.` }
  const { version } = await ask('put', `${id}/parts/${partId}`, text)
  const folders = (await (await request.get('/api/folders')).json()) as {
    id: string
    name: string
  }[]
  const folderId = folders.find(({ name }) => name === 'Wind poems')!.id
  const named = await ask('patch', id, { seenVersion: version, title, folderId })
  if (to === 'tray') await ask('post', `${id}/hand-in`, { seenVersion: named.version })
  return id
}
