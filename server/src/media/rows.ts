import type { FileState } from '@nibquill/contract'
import type { MediaForm, MediaKind, MediaType } from '@nibquill/core'
import { id, integer, maybe, moment, refer, row, text } from '../platform/columns.ts'

/**
 * A file as it arrived. The bytes lie in storage under `keptSha256`, once however many rows point
 * there. `width` and `height` are upright, and 0 for what is no picture; `pages` is null for what has none. Lists read `state` rather
 * than join the forms.
 */
export type MediaRow = {
  id: string
  ownerId: string
  name: string
  kind: MediaKind
  type: MediaType
  sizeBytes: number
  width: number
  height: number
  pages: number | null
  /** What is said in it, typed by a teacher. */
  transcript: string
  /** How far what is made of it is, where that takes long; whole percents. */
  madePercent: number
  sentSha256: string
  keptSha256: string
  state: FileState
  arrivedAt: Date
}
export const MediaRow = row<MediaRow>(
  'media',
  {
    id,
    ownerId: refer('person'),
    name: text,
    kind: text,
    type: text,
    sizeBytes: integer,
    width: integer,
    height: integer,
    pages: maybe(integer),
    transcript: text,
    madePercent: integer,
    sentSha256: text,
    keptSha256: text,
    state: text,
    arrivedAt: moment,
  },
  { indices: [{ columns: ['keptSha256'] }, { columns: ['ownerId'] }] },
)

/**
 * What was made of a file, and where it lies. `sizeBytes` is null for what was made before it was
 * noted; `durationMs` where it plays.
 */
export type MediaFormRow = {
  mediaId: string
  form: MediaForm
  key: string
  type: string
  sizeBytes: number | null
  width: number | null
  height: number | null
  durationMs: number | null
}
export const MediaFormRow = row<MediaFormRow>(
  'media_form',
  {
    mediaId: refer('media', { key: true, cascade: true }),
    form: { ...text, primary: true },
    key: text,
    type: text,
    sizeBytes: maybe(integer),
    width: maybe(integer),
    height: maybe(integer),
    durationMs: maybe(integer),
  },
  { indices: [{ columns: ['key'] }] },
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
