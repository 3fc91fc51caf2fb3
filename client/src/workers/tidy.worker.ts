import {
  brighten,
  looksLikePage,
  planBrighten,
  type Brightening,
} from '@nibquill/core/tidy/brighten'
import { findPage, shrink, type FoundPage } from '@nibquill/core/tidy/findPage'
import { resample, type Rgba } from '@nibquill/core/tidy/resample'
import { planTidying } from '@nibquill/core/tidy/planTidying'
import type { Tidying } from '@nibquill/core/tidy/tidying'

/** What is asked of the worker; `id` comes back with the answer. */
export type TidyRequest = { id: number } & (
  | { ask: 'open'; file: Blob }
  /** The picture as tidied, at most this many pixels long. */
  | { ask: 'preview'; tidying: Tidying; most: number }
  /** The full picture, as a JPEG. */
  | { ask: 'make'; tidying: Tidying }
)
export type Opened = {
  width: number
  height: number
  page: FoundPage | null
  looksLikePage: boolean
}
export type TidyAnswer = { id: number } & (
  | { opened: Opened }
  | { preview: ImageBitmap }
  | { made: Blob }
  | { share: number }
  | { failed: string }
)

const JPEG_QUALITY = 0.92
/** Previews are made from a copy this long, and brightening is planned on it. */
const SMALL_PX = 1600
/** Rows made between two words about how far it is. */
const STRIP_ROWS = 256

let original: Rgba | null = null
let small: Rgba | null = null

async function open(file: Blob): Promise<Opened> {
  const picture = await createImageBitmap(file)
  const canvas = new OffscreenCanvas(picture.width, picture.height)
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  context.drawImage(picture, 0, 0)
  picture.close()
  original = context.getImageData(0, 0, canvas.width, canvas.height)
  small = shrink(original, SMALL_PX)
  return {
    width: original.width,
    height: original.height,
    page: findPage(small),
    looksLikePage: looksLikePage(small),
  }
}

function planLight(tidying: Tidying): Brightening | null {
  const { brighten: wish } = tidying
  if (!small || !wish || wish.strength === 0) return null
  return planBrighten(resample(small, planTidying(small, tidying)), wish.way, wish.strength)
}

async function preview(tidying: Tidying, most: number): Promise<ImageBitmap> {
  if (!small) throw new Error('no picture is open')
  const light = planLight(tidying)
  const picture = resample(small, planTidying(small, tidying, most))
  if (light) brighten(picture, light)
  return createImageBitmap(imageOf(picture))
}

async function make(tidying: Tidying, tell: (share: number) => void): Promise<Blob> {
  if (!original) throw new Error('no picture is open')
  const plan = planTidying(original, tidying)
  const light = planLight(tidying)
  const canvas = new OffscreenCanvas(plan.width, plan.height)
  const context = canvas.getContext('2d')!
  for (let from = 0; from < plan.height; from += STRIP_ROWS) {
    const strip = resample(original, plan, { from, to: Math.min(plan.height, from + STRIP_ROWS) })
    if (light) brighten(strip, light, { from, of: plan.height })
    context.putImageData(imageOf(strip), 0, from)
    tell(Math.min(1, (from + STRIP_ROWS) / plan.height) * 0.9)
  }
  return canvas.convertToBlob({ type: 'image/jpeg', quality: JPEG_QUALITY })
}

const imageOf = ({ data, width, height }: Rgba): ImageData =>
  new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height)

async function answer(request: TidyRequest): Promise<TidyAnswer> {
  const { id } = request
  switch (request.ask) {
    case 'open':
      return { id, opened: await open(request.file) }
    case 'preview':
      return { id, preview: await preview(request.tidying, request.most) }
    case 'make':
      return {
        id,
        made: await make(request.tidying, (share) =>
          self.postMessage({ id, share } satisfies TidyAnswer),
        ),
      }
  }
}

self.onmessage = ({ data }: MessageEvent<TidyRequest>) => {
  answer(data).then(
    (said) => self.postMessage(said, { transfer: 'preview' in said ? [said.preview] : [] }),
    (error: unknown) =>
      self.postMessage({ id: data.id, failed: String(error) } satisfies TidyAnswer),
  )
}
