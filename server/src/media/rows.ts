import { id, integer, moment, refer, row, text } from '../platform/columns.ts'

/**
 * A file as it arrived. The bytes lie in storage under `keptSha256`, once however many rows point
 * there.
 * `width` and `height` are upright, and 0 for what is no picture; `state` says whether its sizes
 * are made.
 */
export type MediaRow = {
  id: string
  ownerId: string
  name: string
  type:
    | 'image/jpeg'
    | 'image/png'
    | 'image/webp'
    | 'image/gif'
    | 'audio/webm'
    | 'audio/ogg'
    | 'audio/mp4'
    | 'application/pdf'
  sizeBytes: number
  width: number
  height: number
  sentSha256: string
  keptSha256: string
  state: 'arrived' | 'ready' | 'damaged'
  arrivedAt: Date
}
export const MediaRow = row<MediaRow>(
  'media',
  {
    id,
    ownerId: refer('person'),
    name: text,
    type: text,
    sizeBytes: integer,
    width: integer,
    height: integer,
    sentSha256: text,
    keptSha256: text,
    state: text,
    arrivedAt: moment,
  },
  { indices: [{ columns: ['keptSha256'] }, { columns: ['ownerId'] }] },
)

/**
 * An upload begun and not yet taken in: counted, so that nobody fills the disk with beginnings, and
 * finished by whichever process is there.
 */
export type UploadRow = {
  id: string
  ownerId: string
  mediaId: string
  sizeBytes: number
  createdAt: Date
}
export const UploadRow = row<UploadRow>(
  'upload',
  {
    id: { type: 'text', primary: true },
    ownerId: refer('person', { cascade: true }),
    mediaId: { type: 'uuid' },
    sizeBytes: integer,
    createdAt: moment,
  },
  { indices: [{ columns: ['ownerId'] }] },
)
