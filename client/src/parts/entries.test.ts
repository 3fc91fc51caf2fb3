import type { Part } from '@nibquill/contract'
import { AS_IT_WAS } from '@nibquill/core'
import type { Sending } from '../media/uploader'
import { followTidied, noteTidied } from './followTidied'
import { nameOf } from './partKinds'
import { entriesOf } from './PartsStrip'

const part = (id: string, name = ''): Part => ({
  id,
  kind: 'photo',
  name,
  files: { picture: { mediaId: `media-${id}`, sizeBytes: 1, sentSha256: '', state: 'ready' } },
  width: 4,
  height: 3,
  tidied: null,
})
const sending = (partId: string, of: string | null = null): Sending => ({
  partId,
  mediaId: `media-${partId}`,
  pieceId: 'piece',
  ownerId: 'wren',
  kind: 'photo',
  name: `${partId}.jpg`,
  instead: of === null ? null : { partId: of, tidying: AS_IT_WAS },
  sizeBytes: 1,
  sentBytes: 0,
  kept: true,
  state: 'waiting',
  sentence: null,
  preview: '',
})
const ids = (parts: Part[], sendings: Sending[]) =>
  entriesOf(parts, sendings).map((entry) => [entry.id, entry.sending !== null])

test('what is on its way follows what is there, and what has arrived is shown once', () => {
  expect(ids([part('a')], [sending('a'), sending('b')])).toEqual([
    ['a', false],
    ['b', true],
  ])
})

test('a tidied photo on its way stands where the one stood that it came from', () => {
  expect(ids([part('a'), part('b'), part('c')], [sending('t', 'b')])).toEqual([
    ['a', false],
    ['t', true],
    ['c', false],
  ])
})

test('tidied twice before anything arrived, only the newest is shown', () => {
  expect(ids([], [sending('a'), sending('t', 'a'), sending('u', 't')])).toEqual([['u', true]])
  expect(ids([part('a')], [sending('t', 'a'), sending('u', 't')])).toEqual([['u', true]])
})

test('a part is called by its own name; what cameras call files is not one', () => {
  expect(nameOf(part('a', 'the far side'), 0)).toBe('the far side')
  expect(nameOf(part('a', 'IMG_0042.HEIC'), 1)).toBe('Photo 2')
  expect(nameOf(part('a'), 2)).toBe('Photo 3')
})

test('an address that names a photo shows what took its place, as often as it was tidied, and the photo itself once that is back', () => {
  noteTidied('a', 't')
  noteTidied('t', 'u')
  const there =
    (...some: string[]) =>
    (id: string) =>
      some.includes(id)
  expect(followTidied('a', there('u'))).toBe('u')
  expect(followTidied('a', there('a'))).toBe('a')
  expect(followTidied('x', there('u'))).toBe('x')
})
