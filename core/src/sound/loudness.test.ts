import fc from 'fast-check'
import { EVEN_LUFS, evenGainDb, LoudnessMeter, METER_RATE_HZ } from './loudness.ts'
import { FULL_PEAK, highest, MOST_PEAKS } from './bars.ts'
import { Survey } from './peaks.ts'

const fromDb = (db: number) => 10 ** (db / 20)
/** A tone of 1 kHz, alike on both channels. @param dbfs - Its peak. */
function tone(dbfs: number, seconds: number, channels = 2): Float32Array {
  const frames = Math.round(seconds * METER_RATE_HZ)
  const samples = new Float32Array(frames * channels)
  for (let i = 0; i < frames; i++)
    samples.fill(
      fromDb(dbfs) * Math.sin((2 * Math.PI * 1000 * i) / METER_RATE_HZ),
      i * channels,
      (i + 1) * channels,
    )
  return samples
}
function integrated(...parts: Float32Array[]): number | null {
  const meter = new LoudnessMeter(2)
  for (const part of parts) meter.add(part)
  return meter.integrated
}

// EBU Tech 3341 (2016), table 1, test signals 1 to 5: each reads -23 or -33 LUFS within 0.1 LU.
test.each([
  ['1', -23, [[-23, 20]]],
  ['2', -33, [[-33, 20]]],
  [
    '3',
    -23,
    [
      [-36, 10],
      [-23, 60],
      [-36, 10],
    ],
  ],
  [
    '4',
    -23,
    [
      [-72, 10],
      [-36, 10],
      [-23, 60],
      [-36, 10],
      [-72, 10],
    ],
  ],
  [
    '5',
    -23,
    [
      [-26, 20],
      [-20, 20.1],
      [-26, 20],
    ],
  ],
] as const)('EBU Tech 3341, signal %s reads %d LUFS', (_name, reads, parts) => {
  const found = integrated(...parts.map(([dbfs, seconds]) => tone(dbfs, seconds)))
  expect(Math.abs(found! - reads)).toBeLessThanOrEqual(0.1)
})
test('silence, and what is shorter than a block, is of no loudness and gets no gain', () => {
  expect(integrated(new Float32Array(2 * METER_RATE_HZ))).toBeNull()
  expect(integrated(tone(-20, 0.3))).toBeNull()
  expect(evenGainDb(null)).toBe(0)
})
test('a clip is brought to one loudness, but a whisper is not made a shout of', () => {
  expect(evenGainDb(-30) - 30).toBeCloseTo(EVEN_LUFS)
  expect(evenGainDb(-9) - 9).toBeCloseTo(EVEN_LUFS)
  expect(evenGainDb(-60)).toBe(20)
})
test('however it is cut into pieces, a recording is as loud and looks alike', () => {
  const whole = tone(-12, 1.3, 1)
  const once = new Survey()
  once.add(whole)
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 40_000 }), { maxLength: 6 }), (lengths) => {
      const survey = new Survey()
      let at = 0
      for (const length of lengths) survey.add(whole.subarray(at, (at += length)))
      survey.add(whole.subarray(Math.min(at, whole.length)))
      expect(survey.end()).toEqual(once.end())
    }),
    { numRuns: 12 },
  )
})
test('twice as high is six decibels louder', () => {
  const loud = (dbfs: number) => {
    const survey = new Survey()
    survey.add(tone(dbfs, 1, 1))
    return survey.end()
  }
  expect(loud(-12).loudness! - loud(-18.0206).loudness!).toBeCloseTo(6.0206, 3)
  expect(loud(-6).peak).toBeCloseTo(fromDb(-6), 3)
  expect(loud(-6).durationMs).toBe(1000)
  expect(Math.max(...loud(0).peaks)).toBe(FULL_PEAK)
  expect(loud(-6).peaks).toHaveLength(50)
})
test('bars are the highest of their stretch, and none is lost', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 1000 }), { maxLength: 900 }), (values) => {
      const shown = highest(values, MOST_PEAKS)
      expect(shown.length).toBe(Math.min(values.length, MOST_PEAKS))
      if (values.length > 0) expect(Math.max(...shown)).toBe(Math.max(...values))
    }),
  )
})
