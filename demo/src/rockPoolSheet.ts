import {
  emptySheet,
  newInk,
  SPOT_SIZES,
  type InkDocument,
  type Label,
  type PlacedThing,
  type Spot,
  type SpotKind,
} from '@nibquill/core/ink/document'
import type { Expected } from '@nibquill/core/ink/sorting'
import { copyOfStarter } from '@nibquill/core/ink/starter'
import { Chance } from './chance.ts'
import { Child, round, SHEET, wave } from './inInk.ts'

const MM = 100

const spot = (id: string, takes: SpotKind, words: string, x: number, y: number): Spot => ({
  ...{ kind: 'spot', id, takes, words, ...SPOT_SIZES[takes] },
  ...{ at: { x: x * MM, y: y * MM }, turn: 0, locked: false },
})
const WATER = { id: 'water', x: 43, y: 74 }
const ROCK = { id: 'rock', x: 117, y: 74 }
const GAP = { id: 'gap', x: 126, y: 110 }
const SPOTS = [
  spot(WATER.id, 'sort', 'In the water', WATER.x, WATER.y),
  spot(ROCK.id, 'sort', 'On the rock', ROCK.x, ROCK.y),
  spot(GAP.id, 'gap', '', GAP.x, GAP.y),
]
/** Each with where it belongs. */
const CARDS = [
  { id: 'fish', stamp: 'fish', belongs: WATER },
  { id: 'gull', words: 'gull', belongs: ROCK },
  { id: 'shell', stamp: 'shell', belongs: ROCK },
  { id: 'seaweed', words: 'seaweed', belongs: WATER },
  { id: 'crab', words: 'crab', belongs: WATER },
] as const
const TIDE = 'tide'
/** Of a stamp that is a card. */
const CARD_SIZE = { width: 16 * MM, height: 16 * MM }

/** What belongs where, as its teacher expects it. */
export const ROCK_POOL_EXPECTED: Expected = {
  lies: CARDS.map(({ id, belongs }) => ({ thingId: id, spotId: belongs.id })),
  says: [{ spotId: GAP.id, words: TIDE }],
}

/** A rock pool to be sorted: cards to move into the water or onto the rock, and a gap for a word. */
export function rockPoolSheet(): InkDocument {
  const scene = new Child(new Chance(11))
    .line(['sea'], 1, ...wave(88, 14, 72))
    .line(['sea'], 1, ...wave(93, 14, 72))
    .line(['moss'], 3, [20, 95], [17, 86], [22, 79], [18, 72])
    .patch(['soot', 'chalk'], 2, null, ...round(104, 90, 16, 5))
    .patch(['soot', 'chalk'], 2, null, ...round(130, 88, 14, 7))
    .label('Twice a day comes the', 58, 110, null)
  const fixed = scene.things.map((thing) =>
    thing.kind === 'label' ? { ...thing, ground: 'none' as const, locked: true } : thing,
  )
  const cards = CARDS.map((card, i): PlacedThing => {
    const child = new Child(new Chance(12))
    const [x, y] = [20 + i * 30, 22]
    const made =
      'stamp' in card
        ? child.stamp({ of: 'little', name: card.stamp }, ['ochre'], x, y)
        : child.label(card.words, x, y, null)
    const thing = made.things[0] as PlacedThing
    return thing.kind === 'label'
      ? { ...thing, id: card.id, ground: 'straw' }
      : { ...thing, id: card.id, ...CARD_SIZE }
  })
  const things = [...SPOTS, ...fixed, ...cards]
  return { ...newInk(SHEET), sheets: [{ ...emptySheet(SHEET), things }] }
}

/** How often a child of the demo puts a card where it belongs. */
const SURE = 0.78

/** A pupil's copy, sorted as well as they know. @param mediaId - Of the sheet it is a copy of. */
export function sortedRockPool(mediaId: string, chance: Chance): InkDocument {
  const copy = copyOfStarter(rockPoolSheet(), mediaId)
  const belongs = new Map<string, typeof WATER>(CARDS.map((card) => [card.id, card.belongs]))
  const put = (thing: PlacedThing, { x, y }: typeof WATER): PlacedThing => ({
    ...thing,
    at: {
      x: Math.round((x + chance.between(-20, 20)) * MM),
      y: Math.round((y + chance.between(-10, 14)) * MM),
    },
  })
  const [sheet] = copy.sheets
  const things = sheet!.things.map((thing) => {
    const home = belongs.get(thing.id)
    const away = home === WATER ? ROCK : WATER
    return home ? put(thing as PlacedThing, chance.next() < SURE ? home : away) : thing
  })
  const word: Label = {
    ...{ kind: 'label', id: 'word', lines: [chance.next() < SURE ? TIDE : 'sea'], size: 1 },
    ...{ ground: 'none', at: { x: GAP.x * MM, y: (GAP.y - 1) * MM }, turn: 0, locked: false },
    ...{ pen: { ink: ['soot'], water: 0, edge: null, width: 180 }, pointer: null },
  }
  return { ...copy, sheets: [{ ...sheet!, things: [...things, word] }] }
}
