/**
 * A recording that runs. `stop` gives it as a file; `cancel` forgets it. `level`: the highest sample
 * of the last moment, 0 to 1. `ms`: how long it is by now, pauses left out.
 */
export type Recording = {
  stop: () => Promise<File>
  cancel: () => void
  pause: () => void
  goOn: () => void
  level: () => number
  ms: () => number
}

/** How a browser may write what it records, the one we would rather have first. */
export type Written = { type: string; ending: string }

/** What is to become of the slices of a recording, told what they are slices of. */
export type Keep = (file: { name: string; type: string }) => (slice: Blob) => void

/** Whether this browser can record at all. */
export const canRecord = (): boolean =>
  typeof MediaRecorder !== 'undefined' && Boolean(navigator.mediaDevices)

const SLICE_MS = 1000

/**
 * Begins to record a stream.
 * @param off - Called once, when it has ended.
 * @param keep - Takes each second of it as it comes.
 */
export function recordStream(
  stream: MediaStream,
  name: string,
  ways: readonly [Written, ...Written[]],
  { off, bitsPerSecond, keep }: { off: () => void; bitsPerSecond?: number; keep?: Keep },
): Recording {
  const way = ways.find(({ type }) => MediaRecorder.isTypeSupported(type)) ?? ways[0]
  const recorder = new MediaRecorder(stream, {
    mimeType: way.type,
    ...(bitsPerSecond ? { videoBitsPerSecond: bitsPerSecond } : {}),
  })
  const chunks: Blob[] = []
  const taken = keep?.({ name: `${name}.${way.ending}`, type: way.type })
  recorder.ondataavailable = ({ data }) => {
    chunks.push(data)
    taken?.(data)
  }
  const meter = meterOf(stream)
  const end = () => {
    meter.off()
    off()
  }
  const clock = new Clock()
  recorder.addEventListener('stop', () => clock.stand())
  recorder.start(SLICE_MS)
  clock.run()
  return {
    ms: () => clock.ms(),
    pause: () => {
      recorder.pause()
      clock.stand(LOST_IN_A_PAUSE_MS)
    },
    goOn: () => {
      recorder.resume()
      clock.run()
    },
    level: meter.level,
    stop: () =>
      new Promise((resolve) => {
        const done = () => {
          end()
          resolve(new File(chunks, `${name}.${way.ending}`, { type: way.type }))
        }
        recorder.onstop = done
        // It ends by itself where the camera or microphone is taken away.
        if (recorder.state === 'inactive') done()
        else recorder.stop()
      }),
    cancel: () => {
      recorder.onstop = null
      if (recorder.state !== 'inactive') recorder.stop()
      end()
    },
  }
}

/** Opus is coded in frames of 20 ms: of the one that had begun when it was paused, half is lost. */
const LOST_IN_A_PAUSE_MS = 10

/** How much was recorded by now, pauses left out. */
class Clock {
  #before = 0
  #since: number | null = null

  run(): void {
    this.#since ??= performance.now()
  }

  stand(lostMs = 0): void {
    this.#before = Math.max(0, this.ms() - lostMs)
    this.#since = null
  }

  ms(): number {
    return this.#before + (this.#since === null ? 0 : performance.now() - this.#since)
  }
}

function meterOf(stream: MediaStream): { level: () => number; off: () => void } {
  if (stream.getAudioTracks().length === 0) return { level: () => 0, off: () => undefined }
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
