import * as making from './making.ts'
import * as number from './number.ts'
import * as outside from './outside.ts'
import * as places from './places.ts'
import * as sea from './sea.ts'
import { comic, instructions, letterHome, poem, spellings, storyPage } from './words.ts'

export type { Drawing } from './kit.ts'
export { WIND_POEMS } from './words.ts'

/** Every piece of work the demo school's pupils put before a camera. */
export const DRAWINGS = {
  ...sea,
  ...making,
  ...places,
  ...number,
  ...outside,
  ...{ comic, instructions, letterHome, poem, spellings, storyPage },
} as const
export type DrawingName = keyof typeof DRAWINGS
