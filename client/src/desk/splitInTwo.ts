/**
 * Where a run of things, in their order, is cut so that both parts are about as high.
 * @returns how many stand in the first part: all of them where there is only one
 */
export function splitInTwo(heights: readonly number[]): number {
  let best = heights.length
  for (let at = heights.length - 1; at > 0; at--)
    if (higherPart(heights, at) < higherPart(heights, best)) best = at
  return best
}

const sum = (some: readonly number[]) => some.reduce((all, one) => all + one, 0)

/** How high the higher of two parts is. */
export const higherPart = (heights: readonly number[], at: number): number =>
  Math.max(sum(heights.slice(0, at)), sum(heights.slice(at)))
