/** A picture in grey, a byte (0 black, 255 white) a pixel, row by row. */
export type Grey = { data: Uint8ClampedArray; width: number; height: number }

/**
 * Luminance of a canvas's picture.
 * @param rgba - Four bytes a pixel.
 * @see ITU-R BT.601, weights of red, green and blue
 */
export function greyOf(rgba: { data: ArrayLike<number>; width: number; height: number }): Grey {
  const data = new Uint8ClampedArray(rgba.width * rgba.height)
  for (let i = 0, at = 0; i < data.length; i++, at += 4)
    data[i] = (rgba.data[at]! * 77 + rgba.data[at + 1]! * 150 + rgba.data[at + 2]! * 29) >> 8
  return { data, width: rgba.width, height: rgba.height }
}

/** Back to four bytes a pixel, opaque, as readers of codes take it. */
export function rgbaOf({ data, width, height }: Grey): {
  data: Uint8ClampedArray<ArrayBuffer>
  width: number
  height: number
} {
  const rgba = new Uint8ClampedArray(data.length * 4)
  for (let i = 0, at = 0; i < data.length; i++, at += 4) {
    rgba[at] = rgba[at + 1] = rgba[at + 2] = data[i]!
    rgba[at + 3] = 255
  }
  return { data: rgba, width, height }
}

/**
 * The mean of each pixel's square neighbourhood, `radius` pixels each way, smaller at the edges.
 * By sums of all above and left, so that the radius costs nothing. @see Crow 1984, "Summed-area
 * tables for texture mapping"
 */
export function average({ data, width, height }: Grey, radius: number): Grey {
  const across = width + 1
  // A picture of 16 million white pixels still fits 32 bits.
  const sums = new Uint32Array(across * (height + 1))
  for (let y = 0; y < height; y++) {
    let row = 0
    for (let x = 0; x < width; x++) {
      row += data[y * width + x]!
      sums[(y + 1) * across + x + 1] = sums[y * across + x + 1]! + row
    }
  }
  const means = new Uint8ClampedArray(data.length)
  for (let y = 0; y < height; y++) {
    const top = Math.max(0, y - radius) * across
    const rows = Math.min(height, y + radius + 1) - Math.max(0, y - radius)
    const bottom = top + rows * across
    for (let x = 0; x < width; x++) {
      const left = Math.max(0, x - radius)
      const right = Math.min(width, x + radius + 1)
      const sum =
        sums[bottom + right]! - sums[top + right]! - sums[bottom + left]! + sums[top + left]!
      means[y * width + x] = sum / (rows * (right - left))
    }
  }
  return { data: means, width, height }
}

/** Half as wide and half as high: each new pixel is the mean of four. */
export function halve({ data, width, height }: Grey): Grey {
  const [wide, high] = [width >> 1, height >> 1]
  const half = new Uint8ClampedArray(wide * high)
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const at = 2 * y * width + 2 * x
      half[y * wide + x] =
        (data[at]! + data[at + 1]! + data[at + width]! + data[at + width + 1]!) / 4
    }
  return { data: half, width: wide, height: high }
}

/**
 * Twice as wide and high, bilinear: each new pixel lies a quarter of the way between four old ones.
 */
export function double({ data, width, height }: Grey): Grey {
  const [wide, high] = [width * 2, height * 2]
  const twice = new Uint8ClampedArray(wide * high)
  for (let y = 0; y < high; y++) {
    const fromY = Math.min(height - 1, Math.max(0, (y - 0.5) / 2))
    const top = Math.floor(fromY)
    const below = Math.min(height - 1, top + 1)
    const downShare = fromY - top
    for (let x = 0; x < wide; x++) {
      const fromX = Math.min(width - 1, Math.max(0, (x - 0.5) / 2))
      const left = Math.floor(fromX)
      const right = Math.min(width - 1, left + 1)
      const rightShare = fromX - left
      const upper =
        data[top * width + left]! * (1 - rightShare) + data[top * width + right]! * rightShare
      const lower =
        data[below * width + left]! * (1 - rightShare) + data[below * width + right]! * rightShare
      twice[y * wide + x] = upper * (1 - downShare) + lower * downShare
    }
  }
  return { data: twice, width: wide, height: high }
}
