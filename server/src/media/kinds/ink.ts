import { InkDocument, InkOfTalk } from '@nibquill/contract/ink'
import { DomainError, PICTURE_SIZES } from '@nibquill/core'
import { picturesAmong } from '@nibquill/core/ink/picturesAmong'
import { inkToSvg } from '@nibquill/core/ink/svg'
import { readFile, writeFile } from 'node:fs/promises'
import path from 'node:path'
import * as v from 'valibot'
import type { Sniffed } from '../sniff.ts'
import type { Kept, MadeForm, PictureOf } from './kinds.ts'
import { makeSizes } from './makeSizes.ts'

/**
 * Reads ink as it is kept.
 * @throws DomainError `media/ink-unreadable` for what is no ink document, or a later one
 */
export const readInk = (json: string): InkDocument =>
  understand(v.union([InkDocument, InkOfTalk]), json)

/** @throws DomainError `media/ink-unreadable` */
function understand<T extends v.GenericSchema>(schema: T, json: string): v.InferOutput<T> {
  try {
    return v.parse(schema, JSON.parse(json))
  } catch {
    throw new DomainError('media/ink-unreadable')
  }
}

/** Takes in what was drawn: written anew from what was understood, so that nothing hides in it. */
export async function takeInk(file: string, { type }: Sniffed, scratch: string): Promise<Kept> {
  // How a talk-through came to be is sent with its voice.
  const ink = understand(InkDocument, await readFile(file, 'utf8'))
  // A picture is laid on what hangs on a piece already: there it is known whose it is.
  if (ink.sheets.some(({ things }) => picturesAmong(things).length > 0))
    throw new DomainError('media/ink-unreadable')
  const clean = path.join(scratch, 'clean')
  await writeFile(clean, JSON.stringify(ink))
  const { width, height } = ink.sheets[0]!
  return { file: clean, type, width, height }
}

/** Pictures of its first sheet, in the sizes photos have. */
export async function makeInkSizes(
  file: string,
  into: string,
  pictureOf: PictureOf,
): Promise<MadeForm[]> {
  const sheet = readInk(await readFile(file, 'utf8')).sheets[0]!
  const pictures = new Map<string, string>()
  for (const mediaId of picturesAmong(sheet.things)) {
    const jpeg = await pictureOf(mediaId)
    if (jpeg) pictures.set(mediaId, `data:image/jpeg;base64,${jpeg.toString('base64')}`)
  }
  const picture = path.join(into, 'sheet.svg')
  const longestEdgePx = Math.max(...PICTURE_SIZES)
  const hrefOf = (mediaId: string) => pictures.get(mediaId) ?? null
  await writeFile(picture, inkToSvg(sheet, { longestEdgePx, hrefOf }))
  return makeSizes(picture, into)
}
