import {
  Comments,
  Done,
  HeldWords,
  OpenedPrivateWords,
  WaitingComments,
  type DecideComment,
  type OpenPrivateWords,
  type SayComment,
  type SayPrivately,
} from '@nibquill/contract'
import type { CommentMove } from '@nibquill/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { v7 as newId } from 'uuid'
import { api } from '../api/api'
import { asking, useAsk, useChange } from '../api/queries'
import { codeOf } from '../kit/problems'

export const commentsQuery = (pieceId: string) =>
  asking(['comments', pieceId], `/comments/pieces/${pieceId}`, Comments)
export const useComments = (pieceId: string) => useQuery(commentsQuery(pieceId))
/** What pupils and families said, and nobody has looked at yet. */
export const useWaitingComments = () =>
  useAsk(['comments', 'waiting'], '/comments/waiting', WaitingComments)
/** Under an id of its own: what is sent once more after a lost answer is said once. */
export const useSay = () =>
  useChange(
    ({ id = newId(), ...said }: SayComment & { id?: string }) =>
      api.put(`/comments/${id}`, Done, said),
    ['comments'],
  )
export const useSayPrivately = () =>
  useChange(
    ({ id = newId(), ...said }: SayPrivately & { id?: string }) =>
      api.put(`/comments/private/${id}`, Done, said),
    ['comments'],
  )
export const useDecideComment = () =>
  useChange(
    ({ id, move, ...decision }: DecideComment & { id: string; move: CommentMove }) =>
      api.post(`/comments/${id}/${move}`, Done, decision),
    ['comments'],
  )
/** Shows many that wait; what somebody else decided meanwhile is left. @returns how many are shown */
export function useShowMany() {
  const decide = useDecideComment()
  return async (comments: readonly { id: string }[]): Promise<number> => {
    let shown = 0
    for (const { id } of comments)
      await decide.mutateAsync({ id, move: 'show', seenState: 'waiting' }).then(
        () => (shown += 1),
        (error: unknown) => {
          if (codeOf(error) !== 'comment/decided-already') throw error
        },
      )
    return shown
  }
}
export const useHeldWords = () =>
  useAsk(['comments', 'held-words'], '/comments/held-words', HeldWords)
export const usePutHeldWords = () =>
  useChange((words: HeldWords) => api.put('/comments/held-words', HeldWords, words), ['comments'])
/** Not kept: each look is one of its own. */
export const useOpenPrivateWords = () =>
  useMutation({
    mutationFn: (asked: OpenPrivateWords) =>
      api.post('/comments/private/open', OpenedPrivateWords, asked),
  })
