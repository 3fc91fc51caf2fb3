/** How many bars a clip is shown as, whatever its length. */
export const MOST_PEAKS = 160
/** Peaks are whole numbers from silence to full scale. */
export const FULL_PEAK = 255

/** The highest of each of so many stretches alike; all of them where there are no more. */
export function highest(values: readonly number[], count: number): number[] {
  if (values.length <= count) return [...values]
  return Array.from({ length: count }, (_, i) => {
    const from = Math.floor((i * values.length) / count)
    const to = Math.floor(((i + 1) * values.length) / count)
    return values.slice(from, to).reduce((all, one) => Math.max(all, one), 0)
  })
}
