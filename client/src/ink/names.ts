import type { InkDocument, PlacedThing } from '@nibquill/core/ink/document'
import { spotsOf } from '@nibquill/core/ink/sorting'
import { nameOfStamp } from './StampBox'
import { t } from './words'

/** What a placed thing is called. */
export function nameOfThing(thing: PlacedThing): string {
  switch (thing.kind) {
    case 'label':
      return t('labelSaying', { words: thing.lines.join(' ') })
    case 'stamp':
      return nameOfStamp(thing.what)
    case 'picture':
      return t('picture')
    case 'spot':
      return thing.words || t(thing.takes === 'gap' ? 'gap' : 'spot')
  }
}

/** What a spot is called among those of its sheets: by its words, or by its number. */
export function nameOfSpot(ink: InkDocument, spotId: string): string {
  const spots = spotsOf(ink)
  const at = spots.findIndex(({ id }) => id === spotId)
  const spot = spots[at]
  if (!spot) return t('anotherSpot')
  return spot.words || t(spot.takes === 'gap' ? 'gapNumber' : 'spotNumber', { number: at + 1 })
}
