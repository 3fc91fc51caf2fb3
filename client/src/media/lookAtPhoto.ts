import { greyOf } from '@nibquill/core'
import { photoFault, type PhotoFault } from '@nibquill/core/media/photoFaults'

/** Wide enough to tell sharp from blurred, small enough to be looked at in a moment. */
const WIDTH_PX = 640

/**
 * What a pupil may want to know about a photo before they use it; null when nothing, or when the
 * browser cannot open it.
 */
export async function lookAtPhoto(file: Blob): Promise<PhotoFault | null> {
  try {
    const picture = await createImageBitmap(file, {
      resizeWidth: WIDTH_PX,
      resizeQuality: 'medium',
    })
    const canvas = Object.assign(document.createElement('canvas'), {
      width: picture.width,
      height: picture.height,
    })
    const context = canvas.getContext('2d', { willReadFrequently: true })
    context?.drawImage(picture, 0, 0)
    picture.close()
    return context
      ? photoFault(greyOf(context.getImageData(0, 0, canvas.width, canvas.height)))
      : null
  } catch {
    return null
  }
}
