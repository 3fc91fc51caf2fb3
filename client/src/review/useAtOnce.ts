import { useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { painted } from '../kit/painted'

/**
 * Which of two desks is seen: what is drawn already is shown before anything else is done about it, the
 * address included.
 * @param shownId - As the address says.
 * @param drawnId - Drawn out of sight.
 */
export function useAtOnce(shownId: string, drawnId: string | null) {
  const [ahead, setAhead] = useState<string | null>(null)
  // The address says so by now.
  if (ahead === shownId) setAhead(null)
  const turn = useRef(0)
  /**
   * @param then - Where it leads, once it is on screen; what has led on meanwhile comes first.
   * @param also - What is done in any case.
   */
  const show = async (pieceId: string | null, then: () => void, also = () => {}): Promise<void> => {
    const mine = (turn.current += 1)
    if (pieceId !== null && pieceId === drawnId) {
      flushSync(() => setAhead(pieceId))
      await painted()
    }
    also()
    if (turn.current === mine) then()
  }
  return { visibleId: ahead !== null && ahead === drawnId ? ahead : shownId, show }
}
