/** The tablet's camera, behind one small door so that it can be replaced. */

export type Facing = 'environment' | 'user'
export type OpenCamera = { stream: MediaStream; close: () => void }

/** Why there is no picture: what to tap differs. */
export type CameraTrouble = 'refused' | 'missing' | 'busy' | 'insecure'

/** For photos: as much as the camera gives. */
export const PHOTO_WIDTH_PX = 4096

/** @param widthPx - Wished for; the camera gives what it has. @throws CameraTrouble */
export async function openCamera(facing: Facing, widthPx: number): Promise<OpenCamera> {
  if (!navigator.mediaDevices?.getUserMedia) throw 'insecure' satisfies CameraTrouble
  try {
    const stream = await navigator.mediaDevices.getUserMedia({
      audio: false,
      video: {
        facingMode: facing,
        width: { ideal: widthPx },
        height: { ideal: (widthPx * 3) / 4 },
      },
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
