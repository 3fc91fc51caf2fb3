import { FULL_PEAK, highest, MOST_PEAKS } from './bars.ts'
import { LoudnessMeter, METER_RATE_HZ } from './loudness.ts'

/** `peaks`: the highest of each stretch of equal length, `MOST_PEAKS` or fewer. */
export type Peaks = { durationMs: number; peaks: readonly number[] }
/** `loudness`: integrated, in LUFS; null for silence. `peak`: the highest sample, 0 to 1. */
export type Surveyed = Peaks & { loudness: number | null; peak: number }

/** One peak is kept for so many samples, until the length is known. */
const FINE_SAMPLES = METER_RATE_HZ / 50

/** Looks through a recording of one channel while it streams by, in memory that hardly grows. */
export class Survey {
  readonly #meter = new LoudnessMeter()
  readonly #fine: number[] = []
  #now = 0
  #samples = 0

  /** @param samples - At `METER_RATE_HZ`, -1 to 1. */
  add(samples: Float32Array): void {
    this.#meter.add(samples)
    for (const sample of samples) {
      const height = Math.abs(sample)
      if (height > this.#now) this.#now = height
      if (++this.#samples % FINE_SAMPLES > 0) continue
      this.#fine.push(this.#now)
      this.#now = 0
    }
  }

  /** @param gainDb - By which the clip is made louder where it is heard: the bars show that. */
  end(gainDb: (loudness: number | null) => number = () => 0): Surveyed {
    const fine = this.#samples % FINE_SAMPLES > 0 ? [...this.#fine, this.#now] : this.#fine
    const loudness = this.#meter.integrated
    const gain = 10 ** (gainDb(loudness) / 20)
    return {
      durationMs: Math.round((this.#samples / METER_RATE_HZ) * 1000),
      peaks: highest(fine, MOST_PEAKS).map((one) =>
        Math.min(FULL_PEAK, Math.round(one * gain * FULL_PEAK)),
      ),
      loudness,
      peak: fine.reduce((all, one) => Math.max(all, one), 0),
    }
  }
}
