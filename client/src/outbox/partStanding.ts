import { fileOf } from '@nibquill/core'
import type { Waiting } from './outbox'

/** How a part's way to school stands. */
export type PartStanding = {
  standing: Waiting['standing']
  /** 0..1 of its file that is at school. */
  share: number
  sentence: string | null
  /** What its file was called, by which a child knows it among several. */
  fileName: string
  kept: boolean
  /** What belongs to it and waits: to be tried again or let go together. */
  ids: string[]
}

const GRAVE: Waiting['standing'][] = ['refused', 'asks', 'stuck', 'sending', 'waiting']

/** @returns null for a part that is at school */
export function partStanding(lines: readonly Waiting[], partId: string): PartStanding | null {
  const added = lines.find(
    ({ intent }) => intent.kind === 'add-part' && intent.partId === partId,
  )?.intent
  if (added?.kind !== 'add-part') return null
  const mediaId = fileOf(added.part)
  const own = lines.filter(
    ({ intent }) =>
      ('partId' in intent && intent.partId === partId) ||
      (intent.kind === 'file' && intent.mediaId === mediaId),
  )
  const worst = [...own].sort((a, b) => GRAVE.indexOf(a.standing) - GRAVE.indexOf(b.standing))[0]!
  const file = own.find(({ intent }) => intent.kind === 'file')
  return {
    standing: worst.standing,
    share: file ? file.share : 1,
    sentence: worst.sentence,
    fileName: added.part.name,
    kept: own.every(({ kept }) => kept),
    ids: own.map(({ id }) => id),
  }
}
