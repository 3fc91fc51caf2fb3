/**
 * A recording that runs. `stop` gives it as a file; `cancel` forgets it. `level`: the highest sample
 * of the last moment, 0 to 1.
 */
export type Recording = {
  stop: () => Promise<File>
  cancel: () => void
  pause: () => void
  goOn: () => void
  level: () => number
}

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
  const meter = meterOf(stream)
  const off = () => {
    for (const track of stream.getTracks()) track.stop()
    meter.off()
  }
  recorder.start(1000)
  return {
    pause: () => recorder.pause(),
    goOn: () => recorder.resume(),
    level: meter.level,
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

function meterOf(stream: MediaStream): { level: () => number; off: () => void } {
  const context = new AudioContext()
  const analyser = context.createAnalyser()
  context.createMediaStreamSource(stream).connect(analyser)
  const samples = new Float32Array(analyser.fftSize)
  return {
    level: () => {
      analyser.getFloatTimeDomainData(samples)
      return samples.reduce((highest, one) => Math.max(highest, Math.abs(one)), 0)
    },
    off: () => void context.close(),
  }
}
