import { recordStream, type Keep, type Recording, type Written } from './recording'

/** The tablet's camera, behind one small door so that it can be replaced. */

export type Facing = 'environment' | 'user'
export type OpenCamera = { stream: MediaStream; close: () => void }

/** Why there is no picture: what to tap differs. */
export type CameraTrouble = 'refused' | 'missing' | 'busy' | 'insecure'

/** For photos: as much as the camera gives. */
export const PHOTO_WIDTH_PX = 4096

/** For films: what a screen shows, small enough for a tablet to hold two minutes of it. */
export const FILM_WIDTH_PX = 1280
const FILM_BITS_PER_S = 2_500_000
const FILM_WAYS: readonly [Written, ...Written[]] = [
  { type: 'video/webm;codecs=vp8,opus', ending: 'webm' },
  { type: 'video/mp4', ending: 'mp4' },
]

/** Begins to film what the camera sees; it stays open afterwards. */
export const film = (stream: MediaStream, name: string, keep: Keep): Recording =>
  recordStream(stream, name, FILM_WAYS, {
    ...{ off: () => undefined, bitsPerSecond: FILM_BITS_PER_S, keep },
  })

/**
 * @param widthPx - Wished for; the camera gives what it has.
 * @param hears - With what is heard, where there is a microphone.
 * @throws CameraTrouble
 */
export async function openCamera(
  facing: Facing,
  widthPx: number,
  hears = false,
): Promise<OpenCamera> {
  if (!navigator.mediaDevices?.getUserMedia) throw 'insecure' satisfies CameraTrouble
  try {
    const video = {
      facingMode: facing,
      width: { ideal: widthPx },
      height: { ideal: (widthPx * 3) / 4 },
    }
    const devices = navigator.mediaDevices
    const stream = await devices.getUserMedia({ audio: hears, video }).catch((error: unknown) => {
      // A film without a sound is one all the same.
      if (hears && troubleOf(error) === 'missing')
        return devices.getUserMedia({ audio: false, video })
      throw error
    })
    return { stream, close: () => stream.getTracks().forEach((track) => track.stop()) }
  } catch (error) {
    throw troubleOf(error)
  }
}

function troubleOf(error: unknown): CameraTrouble {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused'
  return name === 'NotReadableError' ? 'busy' : 'missing'
}

/** Whether there is a second camera to turn to. Known only once one was allowed. */
export async function hasSeveralCameras(): Promise<boolean> {
  const devices = (await navigator.mediaDevices?.enumerateDevices?.()) ?? []
  return devices.filter(({ kind }) => kind === 'videoinput').length > 1
}

const JPEG_QUALITY = 0.93

/** What the camera sees at this moment, as large as it gives it. */
export async function takePhoto(video: HTMLVideoElement, at: Date): Promise<File> {
  const canvas = document.createElement('canvas')
  canvas.width = video.videoWidth
  canvas.height = video.videoHeight
  canvas.getContext('2d')?.drawImage(video, 0, 0)
  const blob = await new Promise<Blob | null>((resolve) =>
    canvas.toBlob(resolve, 'image/jpeg', JPEG_QUALITY),
  )
  if (!blob) throw new Error('the camera gave no picture')
  return new File(
    [blob],
    `photo ${at.getHours()}.${String(at.getMinutes()).padStart(2, '0')}.${String(at.getSeconds()).padStart(2, '0')}.jpg`,
    { type: 'image/jpeg', lastModified: at.getTime() },
  )
}
