import type { ScanAnswer, ScanRequest } from '../workers/scan.worker'

/** Wide enough for a card at arm's length, small enough to be read several times a second. */
const WIDEST_PX = 1280
const PAUSE_MS = 30

/**
 * Watches a camera's picture for codes, one picture after the other, off the main thread.
 * @param onRead - Called with what a code says, every time one is seen.
 * @returns stops watching
 */
export function watchForCards(video: HTMLVideoElement, onRead: (said: string) => void): () => void {
  const worker = new Worker(new URL('../workers/scan.worker.ts', import.meta.url))
  let round = 0
  let timer: ReturnType<typeof setTimeout>
  const next = () => {
    timer = setTimeout(() => {
      void grab(video).then((picture) => {
        if (!picture) return next()
        const transfer = picture instanceof ImageData ? [picture.data.buffer] : [picture]
        worker.postMessage({ round: round++, picture } satisfies ScanRequest, transfer)
      }, next)
    }, PAUSE_MS)
  }
  worker.onmessage = ({ data }: MessageEvent<ScanAnswer>) => {
    if (data.said !== null) onRead(data.said)
    next()
  }
  worker.onerror = next
  next()
  return () => {
    clearTimeout(timer)
    worker.terminate()
  }
}

async function grab(video: HTMLVideoElement): Promise<ImageBitmap | ImageData | null> {
  const { videoWidth, videoHeight } = video
  if (video.readyState < video.HAVE_CURRENT_DATA || videoWidth === 0) return null
  const scale = Math.min(1, WIDEST_PX / videoWidth)
  const [width, height] = [Math.round(videoWidth * scale), Math.round(videoHeight * scale)]
  if (typeof OffscreenCanvas !== 'undefined')
    return createImageBitmap(video, {
      resizeWidth: width,
      resizeHeight: height,
      resizeQuality: 'medium',
    })
  const canvas = Object.assign(document.createElement('canvas'), { width, height })
  const context = canvas.getContext('2d', { willReadFrequently: true })
  context?.drawImage(video, 0, 0, width, height)
  return context?.getImageData(0, 0, width, height) ?? null
}
