import type { Plan } from './planTidying.ts'

/**
 * A picture of four bytes a pixel (red, green, blue, alpha), row by row, as a canvas gives and
 * takes it.
 */
export type Rgba = { data: Uint8ClampedArray; width: number; height: number }

/**
 * Samples the original once for every pixel of the plan, bilinear between its four nearest; places
 * outside repeat the edge.
 * Alpha is left out: photos are opaque.
 * @param rows - Only rows from `rows.from` to before `rows.to`, so that a long picture can be made
 *   in strips.
 * @see Heckbert 1989, section 2.3: incremental evaluation along a row
 */
export function resample(original: Rgba, plan: Plan, rows = { from: 0, to: plan.height }): Rgba {
  const { width } = plan
  const height = rows.to - rows.from
  const [a, b, c, d, e, f, g, h, i] = plan.toOriginal
  const source = original.data
  const [lastX, lastY] = [original.width - 1, original.height - 1]
  const across = original.width * 4
  const target = new Uint8ClampedArray(width * height * 4)
  let at = 0
  for (let row = rows.from; row < rows.to; row++) {
    const y = row + 0.5
    let u = a * 0.5 + b * y + c
    let v = d * 0.5 + e * y + f
    let w = g * 0.5 + h * y + i
    for (let x = 0; x < width; x++) {
      // Pixels have their middles at halves.
      let fromX = u / w - 0.5
      let fromY = v / w - 0.5
      fromX = fromX < 0 ? 0 : fromX > lastX ? lastX : fromX
      fromY = fromY < 0 ? 0 : fromY > lastY ? lastY : fromY
      const left = fromX | 0
      const top = fromY | 0
      const rightShare = fromX - left
      const downShare = fromY - top
      const first = top * across + left * 4
      const right = left < lastX ? 4 : 0
      const below = first + (top < lastY ? across : 0)
      for (let channel = 0; channel < 3; channel++) {
        const upperLeft = source[first + channel]!
        const lowerLeft = source[below + channel]!
        const upper = upperLeft + (source[first + right + channel]! - upperLeft) * rightShare
        const lower = lowerLeft + (source[below + right + channel]! - lowerLeft) * rightShare
        target[at + channel] = upper + (lower - upper) * downShare
      }
      target[at + 3] = 255
      at += 4
      u += a
      v += d
      w += g
    }
  }
  return { data: target, width, height }
}
