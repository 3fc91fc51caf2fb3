/** The meter is made for this rate: whatever is measured is decoded to it. */
export const METER_RATE_HZ = 48_000

type Biquad = { b: readonly [number, number, number]; a: readonly [number, number] }
/**
 * K-weighting: what the head does to sound, then what the ear leaves out below.
 * @see ITU-R BS.1770-4, annex 1, tables 1 and 2 (for 48 kHz)
 */
const HEAD: Biquad = {
  b: [1.53512485958697, -2.69169618940638, 1.19839281085285],
  a: [-1.69065929318241, 0.73248077421585],
}
const EAR: Biquad = { b: [1, -2, 1], a: [-1.99004745483398, 0.99007225036621] }

/** Blocks of 400 ms, a new one every 100 ms. */
const STEP_SAMPLES = METER_RATE_HZ / 10
const STEPS_A_BLOCK = 4
/** In LUFS: what is quieter is silence, not programme. */
const ABSOLUTE_GATE = -70
/** In LU below the mean of what passed the first gate. */
const RELATIVE_GATE = -10

const loudnessOf = (meanSquare: number): number => -0.691 + 10 * Math.log10(meanSquare)

class Filter {
  readonly #of: Biquad
  #z1 = 0
  #z2 = 0
  constructor(of: Biquad) {
    this.#of = of
  }

  /** Transposed direct form II. */
  next(x: number): number {
    const { b, a } = this.#of
    const y = b[0] * x + this.#z1
    this.#z1 = b[1] * x - a[0] * y + this.#z2
    this.#z2 = b[2] * x - a[1] * y
    return y
  }
}

/**
 * How loud a recording is to the ear, while it streams by: a hundred milliseconds become one number.
 * @see ITU-R BS.1770-4, annex 1; EBU Tech 3341
 */
export class LoudnessMeter {
  readonly #filters: readonly (readonly [Filter, Filter])[]
  /** Sum of squares over all channels, of each step. */
  readonly #steps: number[] = []
  #sum = 0
  #samples = 0

  /** @param channels - One or two; each counts alike. */
  constructor(channels = 1) {
    this.#filters = Array.from({ length: channels }, () => [new Filter(HEAD), new Filter(EAR)])
  }

  /** @param samples - At `METER_RATE_HZ`, -1 to 1, channels taking turns; whole frames only. */
  add(samples: Float32Array): void {
    const channels = this.#filters.length
    for (let at = 0; at < samples.length; at += channels) {
      for (let channel = 0; channel < channels; channel++) {
        const [head, ear] = this.#filters[channel]!
        const weighted = ear.next(head.next(samples[at + channel]!))
        this.#sum += weighted * weighted
      }
      if (++this.#samples < STEP_SAMPLES) continue
      this.#steps.push(this.#sum)
      this.#sum = 0
      this.#samples = 0
    }
  }

  /** Integrated loudness in LUFS; null where nothing was loud enough, or shorter than a block. */
  get integrated(): number | null {
    const blocks: number[] = []
    for (let at = STEPS_A_BLOCK; at <= this.#steps.length; at++) {
      const sum = this.#steps.slice(at - STEPS_A_BLOCK, at).reduce((all, one) => all + one, 0)
      blocks.push(sum / (STEPS_A_BLOCK * STEP_SAMPLES))
    }
    const heard = blocks.filter((square) => loudnessOf(square) > ABSOLUTE_GATE)
    if (heard.length === 0) return null
    const gate = loudnessOf(mean(heard)) + RELATIVE_GATE
    return loudnessOf(mean(heard.filter((square) => loudnessOf(square) > gate)))
  }
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, one) => sum + one, 0) / values.length

/**
 * Where clips are evened out to, in LUFS of one channel: on two loudspeakers that is -16, as speech
 * is made for small devices.
 */
export const EVEN_LUFS = -19
/** A whisper is not made a shout of, with all the noise of its room. */
const MOST_GAIN_DB = 20

/** By how many dB a clip is made louder, or quieter, to be as loud as the others. */
export const evenGainDb = (loudness: number | null): number =>
  loudness === null ? 0 : Math.min(MOST_GAIN_DB, EVEN_LUFS - loudness)
