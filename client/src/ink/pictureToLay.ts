import { fitForTablet } from '../media/fitForTablet'

/** As fine as a sheet prints, over its whole length. */
const LONGEST_PX = 2048
const JPEG_QUALITY = 0.9

/**
 * A picked picture as it is laid on a drawing: as many pixels as a sheet needs, and nothing but
 * pixels. What an SVG would run or fetch it does not, drawn as a picture.
 * @returns null for what this browser cannot open
 */
export async function pictureToLay(
  picked: File,
): Promise<{ file: File; width: number; height: number } | null> {
  try {
    const { file } = await fitForTablet(picked)
    const source =
      file.type === 'image/svg+xml' ? await drawSvg(file) : await createImageBitmap(file)
    const share = Math.min(1, LONGEST_PX / Math.max(source.width, source.height))
    const [width, height] = [source.width, source.height].map((px) =>
      Math.max(1, Math.round(px * share)),
    ) as [number, number]
    const canvas = Object.assign(document.createElement('canvas'), { width, height })
    const context = canvas.getContext('2d')!
    context.fillStyle = '#FFFFFF'
    context.fillRect(0, 0, width, height)
    context.drawImage(source, 0, 0, width, height)
    const made = await new Promise<Blob | null>((resolve) =>
      canvas.toBlob(resolve, 'image/jpeg', JPEG_QUALITY),
    )
    if (!made) return null
    const name = picked.name.replace(/\.\w+$/, '') + '.jpg'
    return { file: new File([made], name, { type: 'image/jpeg' }), width, height }
  } catch {
    return null
  }
}

/** @throws for what is no SVG */
async function drawSvg(file: File): Promise<HTMLImageElement> {
  const picture = new window.Image()
  // Without a size of its own it has none to be drawn in.
  picture.width = picture.height = LONGEST_PX
  picture.src = URL.createObjectURL(file)
  try {
    await picture.decode()
    if (picture.naturalWidth > 0) {
      picture.width = picture.naturalWidth
      picture.height = picture.naturalHeight
    }
    return picture
  } finally {
    URL.revokeObjectURL(picture.src)
  }
}
