import {
  acceptOf,
  endingOf,
  formsOf,
  kindOfType,
  mayBeSentFor,
  MEDIA,
  MEDIA_KINDS,
  MEDIA_USES,
  mostBytesFor,
  type MediaType,
} from './kinds.ts'

test('every type belongs to one kind and ends in its own way', () => {
  const types = MEDIA_KINDS.flatMap((kind) => Object.keys(MEDIA[kind].types) as MediaType[])
  expect(new Set(types).size).toBe(types.length)
  for (const type of types) {
    expect(Object.keys(MEDIA[kindOfType(type)].types)).toContain(type)
    expect(endingOf(type)).toMatch(/^[a-z0-9]{3,4}$/)
  }
  // Types and endings as IANA and the formats' own papers name them.
  expect(kindOfType('audio/mp4')).toBe('sound')
  expect(endingOf('audio/mp4')).toBe('m4a')
  expect(kindOfType('application/pdf')).toBe('paper')
})

test('what is made of a file: sizes of a picture and of what is drawn, nothing of a paper', () => {
  expect(formsOf('ink')).toEqual(['320', '960', '2048'])
  expect(formsOf('picture')).toEqual(['320', '960', '2048'])
  expect(formsOf('paper')).toEqual([])
})

test('a kind nothing is made of yet may be sent for nothing', () => {
  expect(MEDIA_USES.filter((use) => mayBeSentFor(use, 'film'))).toEqual([])
  expect(MEDIA_KINDS.filter((kind) => mayBeSentFor('part', kind))).toEqual([
    ...['picture', 'ink', 'sound'],
  ])
  expect(MEDIA_KINDS.filter((kind) => mayBeSentFor('attachment', kind))).toEqual([
    'picture',
    'sound',
    'paper',
  ])
  expect(mostBytesFor('part')).toBe(60 * 1024 * 1024)
})

test('a file dialogue offers types, and endings where systems do not know the type', () => {
  expect(acceptOf('picture')).toBe(
    'image/jpeg,image/png,image/webp,image/gif,image/heic,image/heif,.heic,.heif',
  )
  expect(acceptOf('paper')).toBe('application/pdf')
})
