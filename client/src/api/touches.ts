import type { LiveEvent, LiveTopic } from '@nibquill/contract'
import type { QueryKey } from '@tanstack/react-query'

const whole = (...capabilities: string[]): QueryKey[] => capabilities.map((name) => [name])

const ofPiece = (id: string): QueryKey[] =>
  [id, 'mine', 'for-everyone'].map((which) => ['pieces', which])

/**
 * Which questions have another answer when something of a topic changed: the one place that says
 * so, for what this tablet did and for what it hears. Only what is on screen is asked again.
 */
const TOUCHES: Record<LiveTopic, (id: string | undefined) => QueryKey[]> = {
  // Lists of everything may hold it; of other pieces nothing is asked that stands on its own.
  pieces: (id) => [
    ...whole('review', 'notices', 'tasks', 'school', 'folders', 'portfolio', 'book'),
    ...(id
      ? [...ofPiece(id), ['comments', id], ['comments', 'waiting'], ['mark-ups', id]]
      : whole('pieces', 'comments', 'mark-ups')),
  ],
  // A class of thirty whose words save themselves every few seconds: as little as there can be.
  work: (id) => (id ? ofPiece(id) : whole('pieces')),
  comments: (id) => [
    ...(id ? [['comments', id]] : whole('comments')),
    ['comments', 'waiting'],
    ['notices', 'news'],
  ],
  'mark-ups': (id) => [id ? ['mark-ups', id] : ['mark-ups']],
  review: () => whole('review'),
  notices: () => whole('notices'),
  portfolio: () => whole('portfolio', 'pieces', 'book'),
  book: () => whole('book'),
  media: () => whole('pieces'),
  sharing: () => whole('sharing', 'comments'),
  school: () => whole('school'),
  tasks: () => whole('tasks', 'school'),
  folders: () => whole('folders'),
  accounts: () => whole('accounts'),
}

export const touchedBy = ({ topic, id }: LiveEvent): QueryKey[] => TOUCHES[topic](id)
