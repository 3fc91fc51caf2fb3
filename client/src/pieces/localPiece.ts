import type { Piece, Tasks } from '@nibquill/contract'
import { suggestTitle } from '@nibquill/core'
import type { QueryClient } from '@tanstack/react-query'
import type * as v from 'valibot'
import { sessionQuery } from '../accounts'

/**
 * A piece the school has not heard of yet, as far as this tablet knows it. Null when it does not
 * know who is here.
 */
export function localPiece(
  queries: QueryClient,
  pieceId: string,
  taskId: string | null,
): Piece | null {
  const person = queries.getQueryData(sessionQuery.queryKey)?.person
  if (!person?.peg) return null
  const task =
    queries.getQueryData<v.InferOutput<typeof Tasks>>(['tasks'])?.find(({ id }) => id === taskId) ??
    null
  const pupil = { id: person.id, firstName: person.firstName, lastName: '', peg: person.peg }
  return {
    id: pieceId,
    title: '',
    state: 'draft',
    goes: 0,
    folder: task?.folder ?? null,
    pupil,
    cover: null,
    partCount: 0,
    nudgedAt: null,
    closed: false,
    changedAt: new Date().toISOString(),
    submittedAt: null,
    message: null,
    voice: null,
    version: 1,
    reflection: '',
    step: 'finished',
    task: task && {
      id: task.id,
      title: task.title,
      folderChangeable: task.folderChangeable,
      asksThoughts: task.asksThoughts,
      asks: task.asks,
    },
    classPiece: null,
    mayChange: true,
    makers: [pupil],
    suggestedTitle: suggestTitle({
      task: task?.title,
      folder: task?.folder.name,
      week: undefined,
      earlier: 0,
    }),
    parts: [],
    versions: [],
    term: null,
    classId: task?.classId ?? '',
    className: person.className ?? '',
    approved: false,
    pick: null,
  }
}
