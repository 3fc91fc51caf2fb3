import { coverOf } from '@nibquill/core'
import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { Activity, memo, useEffect, useRef, useState, type ComponentProps } from 'react'
import { commentsQuery } from '../comments'
import { lookOf } from '../parts/partKinds'
import { markUpsQuery, pieceQuery } from '../pieces'
import { Judging } from './Judging'
import { earlierQuery } from './reviewQueries'
import { useAtOnce } from './useAtOnce'

type Desk = Omit<ComponentProps<typeof Judging>, 'onDecided'> & {
  /** After a decision: the next one, or the end. */
  onDecided: () => void
}

/** The one that lies there comes first. */
const AHEAD_AFTER_MS = 150

/**
 * The judging desk, and behind it the next one, drawn out of sight as soon as its piece is here: after
 * a decision it only has to be shown.
 */
export function Desks({ shown, next }: { shown: Desk; next: Desk | null }) {
  const aheadId = useAhead(next?.pieceId ?? null)
  const desks = next && next.pieceId === aheadId ? [shown, next] : [shown]
  const { visibleId, show } = useAtOnce(shown.pieceId, desks[1]?.pieceId ?? null)
  const latest = useRef({ desks, show })
  latest.current = { desks, show }
  return desks.map(({ pieceId, place, back }) => (
    <Activity key={pieceId} mode={pieceId === visibleId ? 'visible' : 'hidden'}>
      <Steady {...{ pieceId, place, back, latest }} />
    </Activity>
  ))
}

type SteadyProps = Omit<ComponentProps<typeof Judging>, 'onGo' | 'onDecided'> & {
  latest: { current: { desks: Desk[]; show: ReturnType<typeof useAtOnce>['show'] } }
}

/** Drawn anew only where something else is to be seen: not for being shown. */
const Steady = memo(
  function Steady({ latest, ...desk }: SteadyProps) {
    // A decision is taken back where its desk is long gone.
    const go: Desk['onGo'] = (to) => {
      const { desks, show } = latest.current
      void show(to, () => desks[0]!.onGo(to))
    }
    const decided = (also: () => void) => {
      const { desks, show } = latest.current
      const here = desks.find(({ pieceId }) => pieceId === desk.pieceId)
      void show(here?.place.nextId ?? null, () => here?.onDecided(), also)
    }
    return <Judging {...desk} onGo={go} onDecided={decided} />
  },
  (before, now) =>
    before.pieceId === now.pieceId &&
    before.back === now.back &&
    (['number', 'of', 'nextId', 'previousId'] as const).every(
      (part) => before.place[part] === now.place[part],
    ),
)

/** @returns the piece, once everything its desk shows is here before it is asked for */
function useAhead(pieceId: string | null): string | null {
  const queries = useQueryClient()
  const [aheadId, setAheadId] = useState<string | null>(null)
  useEffect(() => {
    if (!pieceId) return
    let wanted = true
    const timer = setTimeout(
      () =>
        void fetchAhead(queries, pieceId).then(
          () => wanted && setAheadId(pieceId),
          () => undefined,
        ),
      AHEAD_AFTER_MS,
    )
    return () => {
      wanted = false
      clearTimeout(timer)
    }
  }, [pieceId, queries])
  return aheadId
}

async function fetchAhead(queries: QueryClient, pieceId: string): Promise<void> {
  const [{ parts }] = await Promise.all([
    queries.fetchQuery(pieceQuery(pieceId)),
    queries.fetchQuery(markUpsQuery(pieceId)),
    queries.fetchQuery(commentsQuery(pieceId)),
    queries.fetchQuery(earlierQuery(pieceId)),
  ])
  const cover = coverOf(parts)
  const address = cover && lookOf(cover).ahead(cover)
  if (!address) return
  const picture = new window.Image()
  picture.src = address
  // One that does not come is no reason to wait.
  await picture.decode().catch(() => undefined)
}
