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

/** What a spot is called among those of its sheets: by its words, or by its number among those without. */
export function nameOfSpot(ink: InkDocument, spotId: string): string {
  const spots = spotsOf(ink)
  const spot = spots.find(({ id }) => id === spotId)
  if (!spot) return t('anotherSpot')
  const alike = spots.filter(({ takes, words }) => takes === spot.takes && words === '')
  if (spot.words !== '' || alike.length === 1) return nameOfThing(spot)
  const number = alike.indexOf(spot) + 1
  return t(spot.takes === 'gap' ? 'gapNumber' : 'spotNumber', { number })
}
