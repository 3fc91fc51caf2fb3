import type { Ink } from '@nibquill/core/ink/inks'
import { t } from './words'

/** The roll is leather, sewn. */
export const ROLL = { leather: '#6A543B', pocket: '#5A4630', stitch: '#D8C5A2', words: '#FFFFFF' }

/** What an ink is called: its well, or that it was mixed. */
export const nameOfInk = (ink: Ink): string => {
  const wells = [...new Set(ink)]
  return wells.length === 1 ? t(`inks.${wells[0]!}`) : t('mixed')
}
/** The same, with what a mixed one is made of. */
export const fullNameOf = (ink: Ink): string =>
  new Set(ink).size === 1
    ? nameOfInk(ink)
    : t('mixedOf', { drops: ink.map((well) => t(`inks.${well}`)).join(', ') })

export const sameInk = (a: Ink, b: Ink): boolean => [...a].sort().join() === [...b].sort().join()
