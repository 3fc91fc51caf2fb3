import type { Part } from '@nibquill/contract'

/**
 * Where a photo is read. A picture whose sizes are still being made gets another address than the
 * finished one,
 * so that what was shown meanwhile is never kept in its place.
 * @param link - Token of a page link, for those who came by one.
 */
export function mediaAddress(
  part: Pick<Part, 'mediaId' | 'state'>,
  size: 320 | 960 | 2048 | 'full',
  link?: string,
): string {
  const query = new URLSearchParams()
  if (link) query.set('link', link)
  if (part.state === 'arrived' && size !== 'full') query.set('soon', '1')
  const text = query.toString()
  return `/api/media/${part.mediaId}/${size}${text ? `?${text}` : ''}`
}
