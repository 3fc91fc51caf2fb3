import { average, double, halve, rgbaOf, type Grey } from '../media/grey.ts'

/**
 * Ways to look at a camera's picture of a card, each for one trouble; a reader that fails with one
 * is given the next.
 * Which ones help was measured: see `bench/src/scan.ts`.
 */
export const CARD_LOOKS = ['smooth', 'plain', 'crisp', 'small', 'even', 'large'] as const
export type CardLook = (typeof CARD_LOOKS)[number]

const SMOOTH_RADIUS = 1
const CRISP_RADIUS = 5
const CRISP_GAIN = 2.5
const EVEN_RADIUS = 16
/** A pixel is ink when it is darker than this share of its neighbourhood. */
const EVEN_SHARE = 0.95

/**
 * The picture as a look wants it.
 * `plain`: as it is. `smooth`: without the grain of dim light. `crisp`: edges drawn out again that
 * lie out of focus.
 * `small`: half as wide, for motion and strong grain. `even`: ink or paper, decided by the
 * neighbourhood, for shadows and lamps.
 * `large`: twice as wide, for a card held far away.
 */
export function lookAt(grey: Grey, look: CardLook): Grey {
  if (look === 'plain') return grey
  if (look === 'small') return halve(grey)
  const smooth = average(grey, SMOOTH_RADIUS)
  if (look === 'smooth') return smooth
  if (look === 'crisp') return sharpen(smooth)
  if (look === 'even') return inkOrPaper(smooth)
  return double(smooth)
}

function sharpen(grey: Grey): Grey {
  const mean = average(grey, CRISP_RADIUS).data
  return { ...grey, data: grey.data.map((value, i) => value + CRISP_GAIN * (value - mean[i]!)) }
}

function inkOrPaper(grey: Grey): Grey {
  const mean = average(grey, EVEN_RADIUS).data
  return { ...grey, data: grey.data.map((value, i) => (value < mean[i]! * EVEN_SHARE ? 0 : 255)) }
}

/** Settings for readers made from ZXing: QR codes only, one of them, upright or turned. */
export const CARD_READER = {
  formats: ['QRCode'],
  tryHarder: true,
  tryRotate: true,
  tryInvert: false,
  tryDownscale: false,
  maxNumberOfSymbols: 1,
} as const

/**
 * Looks at one picture in several ways until a reader makes something of it.
 * @param read - Reads a code out of a picture of four bytes a pixel; null when there is none.
 * @returns what the code says, or null
 */
export async function readCard(
  grey: Grey,
  looks: readonly CardLook[],
  read: (rgba: ReturnType<typeof rgbaOf>) => Promise<string | null>,
): Promise<string | null> {
  for (const look of looks) {
    const said = await read(rgbaOf(lookAt(grey, look)))
    if (said !== null) return said
  }
  return null
}

/**
 * The look for each of a camera's pictures in turn: the best one most often, since a card held
 * still is seen again at once.
 */
const IN_TURN: readonly CardLook[] = [
  'smooth',
  'plain',
  'smooth',
  'crisp',
  'small',
  'smooth',
  'even',
  'smooth',
  'large',
]
export const lookInTurn = (round: number): CardLook => IN_TURN[round % IN_TURN.length]!
