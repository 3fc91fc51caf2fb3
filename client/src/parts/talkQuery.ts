import type { TalkPart } from '@nibquill/contract'
import { InkOfTalk } from '@nibquill/contract/ink'
import type { Talk } from '@nibquill/core/ink/talk'
import { useQuery } from '@tanstack/react-query'
import { api } from '../api/api'
import { useWaitingTalk } from '../outbox/OutboxContext'

/** What was drawn in a talk-through and when: what waits here, or what the school has. */
export function useTalk(
  part: TalkPart,
  link?: string,
): { talk: Talk | null; error: unknown; tryAgain: () => void } {
  const waiting = useWaitingTalk(part.id)
  const { mediaId } = part.files.ink
  const { data, error, refetch } = useQuery({
    queryKey: ['ink', mediaId, 'talk'],
    queryFn: async ({ signal }) => {
      const path = `/media/${mediaId}/full${link ? `?link=${encodeURIComponent(link)}` : ''}`
      return (await api.get(path, InkOfTalk, signal)).talk
    },
    // It never changes under its id.
    staleTime: Infinity,
    enabled: !waiting && mediaId !== '',
  })
  const talk = waiting ?? data ?? null
  return { talk, error: talk ? null : error, tryAgain: () => void refetch() }
}
