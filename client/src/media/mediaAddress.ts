import type { PartFile } from '@nibquill/contract'
import type { MediaForm, PictureSize } from '@nibquill/core'
import { addressHere } from './filesHere'

export type Readable = Pick<PartFile, 'mediaId' | 'state'>

/**
 * Where a file is read. A picture whose sizes are still being made gets another address than the
 * finished one, so that what was shown meanwhile is never kept in its place.
 * @param link - Token of a page link, for those who came by one.
 */
export function mediaAddress(
  { mediaId, state }: Readable,
  form: MediaForm | PictureSize | 'full',
  link?: string,
): string {
  const onTablet = addressHere(mediaId)
  if (onTablet && state !== 'ready') return onTablet
  const query = new URLSearchParams()
  if (link) query.set('link', link)
  if (state === 'arrived' && form !== 'full') query.set('soon', '1')
  const text = query.toString()
  return `/api/media/${mediaId}/${form}${text ? `?${text}` : ''}`
}
