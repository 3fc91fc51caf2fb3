import type { PieceLine } from '@nibquill/contract'
import { strings } from './strings'

export type Grouping = 'task' | 'folder' | 'pupil'
export type Group = { title: string; pieces: PieceLine[] }

/**
 * The tray in groups, each in the order pieces were handed in; groups in the order of their first
 * piece.
 */
export function groupTray(pieces: readonly PieceLine[], by: Grouping): Group[] {
  const groups = new Map<string, Group>()
  for (const piece of pieces) {
    const title = titleOf(piece, by)
    const group = groups.get(title) ?? { title, pieces: [] }
    group.pieces.push(piece)
    groups.set(title, group)
  }
  return [...groups.values()]
}

function titleOf(piece: PieceLine, by: Grouping): string {
  if (by === 'task') return piece.taskTitle ?? strings.noTask
  if (by === 'folder') return piece.folder?.name ?? ''
  return `${piece.pupil.firstName} ${piece.pupil.lastName}`
}
