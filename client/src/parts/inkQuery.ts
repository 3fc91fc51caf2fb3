import { InkDocument } from '@nibquill/contract/ink'
import { INK_FORMAT, INK_VERSION } from '@nibquill/core/ink/document'
import { queryOptions } from '@tanstack/react-query'
import * as v from 'valibot'
import { api } from '../api/api'
import { fileHere } from '../media/filesHere'

/** Drawn with a Nibquill that is newer than this one: its pictures are looked at, no more. */
export class LaterInk extends Error {}

const MaybeLater = v.object({
  format: v.literal(INK_FORMAT),
  version: v.pipe(v.number(), v.minValue(INK_VERSION + 1)),
})

/** @throws LaterInk; Error for what is no ink */
function understand(document: unknown): InkDocument {
  const ink = v.safeParse(InkDocument, document)
  if (ink.success) return ink.output
  if (v.is(MaybeLater, document)) throw new LaterInk('made with a later version')
  throw new Error('no ink document')
}

const pathOf = (mediaId: string, link?: string): string =>
  `/media/${mediaId}/full${link ? `?link=${encodeURIComponent(link)}` : ''}`

/** What was drawn, from this tablet where it has not arrived. It never changes under its id. */
export const inkQuery = (mediaId: string, link?: string) =>
  queryOptions({
    queryKey: ['ink', mediaId],
    queryFn: async ({ signal }) => {
      const file = fileHere(mediaId)
      return understand(
        file
          ? JSON.parse(await file.text())
          : await api.get(pathOf(mediaId, link), v.unknown(), signal),
      )
    },
    staleTime: Infinity,
    enabled: mediaId !== '',
    retry: (failures, error) => !(error instanceof LaterInk) && failures < 2,
  })
