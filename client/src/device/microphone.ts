/** A recording that runs. `stop` gives it as a file; `cancel` forgets it. */
export type Recording = { stop: () => Promise<File>; cancel: () => void }

const KINDS = [
  { type: 'audio/webm;codecs=opus', ending: 'webm' },
  { type: 'audio/ogg;codecs=opus', ending: 'ogg' },
  { type: 'audio/mp4', ending: 'm4a' },
] as const

/** Whether this browser can record at all. */
export const canRecord = (): boolean =>
  typeof MediaRecorder !== 'undefined' && Boolean(navigator.mediaDevices)

/** Begins to record. @throws DOMException when the microphone is missing or refused */
export async function record(name: string): Promise<Recording> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
  const kind = KINDS.find(({ type }) => MediaRecorder.isTypeSupported(type)) ?? KINDS[0]
  const recorder = new MediaRecorder(stream, { mimeType: kind.type })
  const chunks: Blob[] = []
  recorder.ondataavailable = ({ data }) => chunks.push(data)
  const off = () => {
    for (const track of stream.getTracks()) track.stop()
  }
  recorder.start(1000)
  return {
    stop: () =>
      new Promise((resolve) => {
        recorder.onstop = () => {
          off()
          resolve(new File(chunks, `${name}.${kind.ending}`, { type: kind.type }))
        }
        recorder.stop()
      }),
    cancel: () => {
      recorder.onstop = null
      recorder.stop()
      off()
    },
  }
}
