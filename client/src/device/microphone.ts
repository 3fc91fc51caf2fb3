import { recordStream, type Keep, type Recording, type Written } from './recording'

const WAYS: readonly [Written, ...Written[]] = [
  { type: 'audio/webm;codecs=opus', ending: 'webm' },
  { type: 'audio/ogg;codecs=opus', ending: 'ogg' },
  { type: 'audio/mp4', ending: 'm4a' },
]

/** Whether the browser will ask before it listens; where it does not tell, it is taken to ask. */
export async function willAsk(): Promise<boolean> {
  try {
    return (await navigator.permissions.query({ name: 'microphone' })).state === 'prompt'
  } catch {
    return true
  }
}

/** Begins to record. @throws DOMException when the microphone is missing or refused */
export async function record(name: string, keep?: Keep): Promise<Recording> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
  const off = () => stream.getTracks().forEach((track) => track.stop())
  return recordStream(stream, name, WAYS, { off, ...(keep ? { keep } : {}) })
}
