import { imageSize } from 'image-size'

/**
 * More pixels than this make a tablet run out of memory when the photo is shown or tidied; no
 * camera of a tablet has them.
 */
export const MOST_PIXELS = 40_000_000

/**
 * Enough of a file to find its size in; what stands before it (a preview, colour tables) fits as
 * well.
 */
const HEAD_BYTES = 512 * 1024

/**
 * Makes a very large photo smaller before it is used, so that a tablet can hold it. Everything else
 * stays as it is, byte for byte.
 * @returns the file to use, and whether it was made smaller
 */
export async function fitForTablet(file: File): Promise<{ file: File; smaller: boolean }> {
  const size = await sizeOf(file)
  const share = size ? Math.sqrt(MOST_PIXELS / (size.width * size.height)) : 1
  if (!size || share >= 1) return { file, smaller: false }
  try {
    const width = Math.floor(size.width * share)
    const picture = await createImageBitmap(file, {
      resizeWidth: size.turned ? Math.floor(size.height * share) : width,
      resizeQuality: 'high',
    })
    const canvas = new OffscreenCanvas(picture.width, picture.height)
    canvas.getContext('2d')!.drawImage(picture, 0, 0)
    picture.close()
    const made = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 })
    return {
      file: new File([made], file.name, { type: 'image/jpeg', lastModified: file.lastModified }),
      smaller: true,
    }
  } catch {
    // This browser cannot; the school takes it as it is, or says why not.
    return { file, smaller: false }
  }
}

/**
 * Pixels as the file's head tells them, without opening the picture. `turned`: it lies on its side.
 */
async function sizeOf(
  file: File,
): Promise<{ width: number; height: number; turned: boolean } | null> {
  try {
    const {
      width,
      height,
      orientation = 1,
    } = imageSize(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()))
    return { width, height, turned: orientation >= 5 }
  } catch {
    return null
  }
}
