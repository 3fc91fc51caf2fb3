import {
  acceptOf,
  endingOf,
  formsOf,
  kindOfType,
  mayBeSentFor,
  mayStandIn,
  MEDIA,
  MEDIA_KINDS,
  MEDIA_USES,
  mostBytesFor,
  pageForm,
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

test('what is made of a file: sizes of a picture, of what is drawn, of a paper’s first page and of a moment in a film', () => {
  expect(formsOf('ink')).toEqual(['320', '960', '2048'])
  expect(formsOf('picture')).toEqual(['320', '960', '2048'])
  expect(formsOf('paper')).toEqual(['320', '960', '2048'])
  expect(formsOf('film')).toEqual(['320', '960', '2048', 'playable', 'peaks'])
})

test('a file stands in for pictures of itself and for what is played, for nothing else', () => {
  expect(mayStandIn('picture', '320')).toBe(true)
  expect(mayStandIn('film', 'playable')).toBe(true)
  for (const form of ['320', 'peaks', pageForm(1)] as const) {
    expect(mayStandIn('film', form)).toBe(false)
    expect(mayStandIn('paper', form)).toBe(false)
  }
})

test('each kind may be sent for what it is for', () => {
  expect(MEDIA_USES.filter((use) => mayBeSentFor(use, 'film'))).toEqual(['part', 'attachment'])
  expect(MEDIA_KINDS.filter((kind) => mayBeSentFor('part', kind))).toEqual([
    ...['picture', 'ink', 'sound', 'film', 'paper'],
  ])
  expect(MEDIA_KINDS.filter((kind) => mayBeSentFor('attachment', kind))).toEqual([
    'picture',
    'sound',
    'film',
    'paper',
  ])
  expect(mostBytesFor('part')).toBe(400 * 1024 * 1024)
  expect(mostBytesFor('attachment')).toBe(400 * 1024 * 1024)
  expect(mostBytesFor('pages')).toBe(60 * 1024 * 1024)
})

test('a file dialogue offers types, and endings where systems do not know the type', () => {
  expect(acceptOf('picture')).toBe(
    'image/jpeg,image/png,image/webp,image/gif,image/heic,image/heif,.heic,.heif',
  )
  expect(acceptOf('paper')).toBe('application/pdf')
})
