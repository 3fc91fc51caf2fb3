import type { LinkPart, PagePart, Part } from '@nibquill/contract'
import { PART_KINDS, type PartKind } from '@nibquill/core'
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react'
import { show } from '../testing'
import { nameOf } from './partKinds'
import { PartsViewer } from './PartsViewer'
import { PartView } from './PartView'
import { Sheet } from './Sheet'

// What jsdom has not.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}

const file = { mediaId: 'media', sizeBytes: 1, sentSha256: '', state: 'ready' } as const
/** One of each kind, and what tells that it is shown. A new kind fails here until it is complete. */
const SAMPLES: Record<PartKind, { part: Part; shown: () => unknown; word: string }> = {
  photo: {
    part: {
      ...{ id: 'p', kind: 'photo', name: '', width: 4, height: 3, tidied: null },
      files: { picture: file },
    },
    shown: () =>
      document.querySelector('[style*="/api/media/media"], img[src*="/api/media/media"]'),
    word: 'Photo',
  },
  drawing: {
    part: {
      ...{ id: 'd', kind: 'drawing', name: '', width: 16_000, height: 12_000, sheets: 1 },
      files: { ink: { ...file, mediaId: 'ink' } },
    },
    shown: () => document.querySelector('[style*="/api/media/ink/"], img[src*="/api/media/ink/"]'),
    word: 'Drawing',
  },
  writing: {
    part: { id: 'w', kind: 'writing', name: '', files: {}, text: 'The wind walks.' },
    shown: () => screen.queryByText('The wind walks.'),
    word: 'Writing',
  },
  voice: {
    part: {
      ...{ id: 'v', kind: 'voice', name: '', text: '', typed: '', heard: null },
      files: { sound: { ...file, mediaId: 'said' } },
    },
    // Its bars.
    shown: () => document.querySelector('svg rect'),
    word: 'Voice',
  },
  talk: {
    part: {
      ...{ id: 't', kind: 'talk', name: '', width: 16_000, height: 12_000, text: '', typed: '' },
      files: { ink: { ...file, mediaId: 'inked' }, sound: { ...file, mediaId: 'said' } },
    },
    // The sheet as it was left.
    shown: () =>
      document.querySelector('[style*="/api/media/inked/"], img[src*="/api/media/inked/"]'),
    word: 'Talk-through',
  },
  film: {
    part: {
      ...{ id: 'f', kind: 'film', name: '', width: 4, height: 3, text: '', typed: '' },
      files: { film: { ...file, mediaId: 'filmed' } },
    },
    // A moment of it, or itself.
    shown: () =>
      document.querySelector('[style*="/api/media/filmed/"], [src*="/api/media/filmed/"]'),
    word: 'Film',
  },
  page: {
    part: {
      ...{ id: 'g', kind: 'page', name: '', pages: 2 },
      files: { paper: { ...file, mediaId: 'paper' } },
    },
    shown: () =>
      document.querySelector('[style*="/api/media/paper/"], img[src*="/api/media/paper/"]'),
    word: 'Page',
  },
  link: {
    part: {
      ...{ id: 'l', kind: 'link', name: '', files: {} },
      address: 'https://www.saltmarsh.example/tides',
    },
    shown: () => screen.queryAllByText(/saltmarsh\.example/)[0] ?? null,
    word: 'Link',
  },
}

describe.each(PART_KINDS)('a part of kind %s', (kind) => {
  const { part, shown, word } = SAMPLES[kind]

  test.each(['tile', 'cover', 'large'] as const)('is shown as a %s', async (view) => {
    show(<PartView view={view} part={part} alt="what it is" />)
    // What some of them are drawn with is fetched first.
    await waitFor(() => expect(shown()).not.toBeNull(), { timeout: 10_000 })
  })

  test('stands for its piece', () => {
    show(<Sheet piece={{ cover: part, state: 'draft', title: 'a' }} width={200} />)
    expect(shown()).not.toBeNull()
  })

  test('has a word of its own where nobody gave it a name', () => {
    expect(nameOf(part, 1)).toBe(`${word} 2`)
    expect(nameOf({ ...part, name: 'the far side' }, 1)).toBe('the far side')
    expect(nameOf({ ...part, name: 'IMG_0042.JPG' }, 0)).toBe(`${word} 1`)
  })
})

test('of several parts each can be chosen, and is shown as what it is', async () => {
  show(<PartsViewer parts={PART_KINDS.map((kind) => SAMPLES[kind].part)} title="Two ways" />)
  fireEvent.click(screen.getByRole('tab', { name: 'Writing 3 of 8' }))
  await waitFor(() =>
    expect(screen.getByRole('group', { name: 'Writing 3 of 8: Two ways' })).toBeTruthy(),
  )
})

test('a page with nothing on it says so', () => {
  const empty: Part = { id: 'w', kind: 'writing', name: '', files: {}, text: ' ' }
  show(<PartView view="large" part={empty} alt="a page" />)
  expect(screen.getByText('Nothing is written here yet.')).toBeTruthy()
  expect(screen.getByText('0 words')).toBeTruthy()
})

test('a paper is leafed through; what is not shown of it is said', () => {
  const part: Part = { ...(SAMPLES.page.part as PagePart), pages: 45 }
  show(<PartView view="large" part={part} alt="our walk" />)
  expect(screen.getByRole('group', { name: 'our walk, Page 1 of 40' })).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Next page' }))
  expect(document.querySelector('img')!.getAttribute('src')).toBe('/api/media/paper/page-2')
  expect(screen.getByText(/40 of 45 pages are shown/)).toBeTruthy()
})

test('until its pages are made a paper says so; a film stands for itself without a picture', () => {
  const page = SAMPLES.page.part as PagePart
  const paper = { ...page.files.paper, state: 'arrived' } as const
  show(<PartView view="large" part={{ ...page, files: { paper } }} alt="our walk" />)
  expect(screen.getByText(/being made ready/)).toBeTruthy()
  expect(document.querySelector('img')).toBeNull()
})

test('a link says where it leads, opens beside, and tells nobody where one came from', () => {
  const part: Part = { ...(SAMPLES.link.part as LinkPart), name: 'Tides' }
  show(<PartView view="large" part={part} alt="a link" />)
  const link = screen.getByRole('link', { name: /^Open saltmarsh\.example/ })
  expect(link.getAttribute('href')).toBe('https://www.saltmarsh.example/tides')
  expect(link.getAttribute('target')).toBe('_blank')
  expect(link.getAttribute('rel')).toContain('noopener noreferrer')
  expect(screen.getByText('https://www.saltmarsh.example/tides')).toBeTruthy()
})

test.each(['voice', 'talk', 'film'] as const)(
  'what is said in a %s stands under it in words, where somebody typed it',
  (kind) => {
    const part = { ...SAMPLES[kind].part, text: 'It goes sideways.' } as Part
    show(<PartView view="large" part={part} alt="it" />)
    expect(screen.getByRole('group', { name: 'What is said, in words' }).textContent).toContain(
      'It goes sideways.',
    )
    cleanup()
    // As a teacher typed it, where its makers have not.
    const typed = { ...SAMPLES[kind].part, typed: 'It hides.' } as Part
    show(<PartView view="large" part={typed} alt="it" />)
    expect(screen.getByRole('group', { name: 'What is said, in words' }).textContent).toContain(
      'It hides.',
    )
  },
)
