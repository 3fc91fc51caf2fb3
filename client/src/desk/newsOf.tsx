import type { BinnedNews, NewsItem, SaidNews, WorkNews } from '@nibquill/contract'
import { Listen } from '../kit/Listen'
import { mediaAddress } from '../media/mediaAddress'
import { useNews } from '../notices'
import { t } from './words'

export type MyNews = WorkNews | SaidNews | BinnedNews
const isMine = (item: NewsItem): item is MyNews => 'pieceId' in item

/** What happened to a pupil's work, newest first. */
export const useMyNews = (): MyNews[] => (useNews().data ?? []).filter(isMine)

/** The ids of what was not seen yet, with blanks between: the same as long as they are. */
export const unseenIn = (news: readonly MyNews[]): string =>
  news
    .filter(({ seen }) => !seen)
    .map(({ id }) => id)
    .join(' ')

/** In one sentence. */
export function newsText(item: MyNews): string {
  switch (item.kind) {
    case 'approved':
      return t('newsApproved', {
        ...{ teacher: item.teacherName, title: item.pieceTitle },
        folder: item.folderName ?? '',
      })
    case 'returned':
      return t('newsReturned', { teacher: item.teacherName, title: item.pieceTitle })
    case 'commented':
      return t('newsCommented', { name: item.from, title: item.pieceTitle })
    case 'private-word':
      return t('newsPrivate', { name: item.from, title: item.pieceTitle })
    case 'binned':
      return t('newsBinned', { teacher: item.by, title: item.pieceTitle })
  }
}

/** What stands under it: what was said with it, in words. */
export function wordsWith(item: MyNews): string {
  if (item.kind === 'binned') return t('binnedHelp')
  const words = 'message' in item ? item.message : item.words
  return words ? `“${words}”` : ''
}
/** Where it leads: what lies in the bin cannot be looked at. */
export const placeOf = ({ kind, pieceId }: MyNews) =>
  kind === 'binned' ? null : (`/my-pieces/${pieceId}` as const)

/** Heard: what happened, and what was said; in the voice it was said in, where it was. */
export const ListenToNews = ({ item }: { item: MyNews }) => (
  <Listen
    text={[newsText(item), wordsWith(item)].filter(Boolean).join('. ')}
    recording={'voice' in item && item.voice ? mediaAddress(item.voice, 'playable') : undefined}
  />
)
