import type { Part } from '@nibquill/contract'
import { PAGE_FORMS } from '@nibquill/core'
import { In, type EntityManager } from 'typeorm'
import { readInk } from '../media/kinds/ink.ts'
import { fullKey } from '../media/keys.ts'
import { MediaFormRow, MediaRow } from '../media/rows.ts'
import { MarkUpPictureRow, MarkUpRow } from '../review/rows.ts'
import { PRINT_FORM, printMarked, printPart, type Files, type Printed } from './printing.ts'

type Reading = { manager: EntityManager; readFile: (key: string) => Promise<Buffer> }
type Of = { versionId: string; parts: readonly Part[] }

/**
 * What stands on paper of a version, in the order of its parts.
 * @param marked - What teachers wrote on copies of them stands in their place.
 */
export async function printParts(
  { manager, readFile }: Reading,
  { versionId, parts }: Of,
  { marked }: { marked: boolean },
): Promise<Printed[]> {
  const marks = marked ? await manager.findBy(MarkUpRow, { versionId }) : []
  const laidOnMarks = marked ? await manager.findBy(MarkUpPictureRow, { versionId }) : []
  const files = await filesOf(manager, [
    ...parts.flatMap((part) => Object.values(part.files)).map(({ mediaId }) => mediaId),
    ...(await laidOn(manager, versionId)),
    ...marks.map(({ inkMediaId }) => inkMediaId),
    ...laidOnMarks.map(({ mediaId }) => mediaId),
  ])
  const printed = parts.map(async (part) => {
    const mark = marks.find(({ partId }) => partId === part.id)
    const key = mark && files.keyOf(mark.inkMediaId)
    if (!key) return printPart(part, files)
    return printMarked(key, readInk((await readFile(key)).toString('utf8')), files)
  })
  return (await Promise.all(printed)).flat()
}

async function filesOf(manager: EntityManager, mediaIds: readonly string[]): Promise<Files> {
  const of = { mediaId: In(mediaIds) }
  const forms = await manager.findBy(MediaFormRow, { ...of, form: PRINT_FORM })
  const papers = await manager.findBy(MediaFormRow, { ...of, form: In(PAGE_FORMS) })
  const inks = await manager.findBy(MediaRow, { id: In(mediaIds), kind: 'ink' })
  return {
    formOf: (mediaId) => forms.find((form) => form.mediaId === mediaId),
    pagesOf: (mediaId) =>
      PAGE_FORMS.flatMap((form) =>
        papers.filter((one) => one.mediaId === mediaId && one.form === form),
      ),
    keyOf: (mediaId) => inks.filter(({ id }) => id === mediaId).map(fullKey)[0],
  }
}

/** Pictures that lie on the drawings of a version. */
async function laidOn(manager: EntityManager, versionId: string): Promise<string[]> {
  const rows = await manager.query<{ mediaId: string }[]>(
    `select media_id as "mediaId" from version_file where version_id = $1 and role = 'laid'`,
    [versionId],
  )
  return rows.map(({ mediaId }) => mediaId)
}
