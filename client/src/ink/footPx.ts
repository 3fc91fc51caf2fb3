import { useWidth } from '../kit/layout'

/** On a phone what is to be said of a tool stands in a row of its own. */
export const TOOL_ROW_PX = 56

/** A phone on its side: everything along the foot stands in one row, which is drawn along. */
export const useIsLow = (): boolean => useWidth().height < 560

/** As high in Draw as in Arrange, whatever is chosen: the paper never moves under a hand. */
export function useFootPx(): number {
  const { wide, tablet } = useWidth()
  const low = useIsLow()
  return low ? 104 : wide ? 136 : tablet ? 172 : 284
}
