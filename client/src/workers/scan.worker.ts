import { CARD_READER, lookInTurn, readCard } from '@nibquill/core/accounts/cardLooks'
import { greyOf } from '@nibquill/core/media/grey'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'

/**
 * One picture of the camera; `round` counts them. Pixels where the browser has no canvas for
 * workers.
 */
export type ScanRequest = { round: number; picture: ImageBitmap | ImageData }
/** What the code in it says. */
export type ScanAnswer = { said: string | null }

// Shipped with the page: nothing is fetched from elsewhere.
prepareZXingModule({ overrides: { locateFile: (file: string) => `/${file}` } })
let canvas: OffscreenCanvas | null = null

function pixelsOf(picture: ImageBitmap | ImageData): ImageData | null {
  if (picture instanceof ImageData) return picture
  const { width, height } = picture
  if (!canvas || canvas.width !== width || canvas.height !== height)
    canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d', { willReadFrequently: true })
  context?.drawImage(picture, 0, 0)
  picture.close()
  return context?.getImageData(0, 0, width, height) ?? null
}

async function scan({ round, picture }: ScanRequest): Promise<ScanAnswer> {
  const pixels = pixelsOf(picture)
  if (!pixels) return { said: null }
  const said = await readCard(greyOf(pixels), [lookInTurn(round)], async (rgba) => {
    const [found] = await readBarcodes(new ImageData(rgba.data, rgba.width, rgba.height), {
      ...CARD_READER,
      formats: ['QRCode'],
    })
    return found?.isValid ? found.text : null
  })
  return { said }
}

self.onmessage = ({ data }: MessageEvent<ScanRequest>) => {
  scan(data).then(
    (answer) => self.postMessage(answer),
    () => self.postMessage({ said: null } satisfies ScanAnswer),
  )
}
