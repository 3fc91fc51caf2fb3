import type { Piece } from '@nibquill/contract'
import { TeacherSaid } from '../pieces'

/** What the teacher asked for with another go, while it is worked on. */
export function WhatTeacherSaid({ piece }: { piece: Piece }) {
  if (piece.state !== 'returned') return null
  return <TeacherSaid decision={piece.versions.find(({ decision }) => decision)?.decision} />
}
