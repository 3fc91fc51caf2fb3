import type { Part } from '@nibquill/contract'
import { PART_KINDS, type PartKind } from '@nibquill/core'
import { fireEvent, screen, waitFor } from '@testing-library/react'
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
    part: { id: 'v', kind: 'voice', name: '', files: { sound: { ...file, mediaId: 'said' } } },
    // Its bars.
    shown: () => document.querySelector('svg rect'),
    word: 'Voice',
  },
}

describe.each(PART_KINDS)('a part of kind %s', (kind) => {
  const { part, shown, word } = SAMPLES[kind]

  test.each(['tile', 'cover', 'large'] as const)('is shown as a %s', async (view) => {
    show(<PartView view={view} part={part} alt="what it is" />)
    await waitFor(() => expect(shown()).not.toBeNull())
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
  fireEvent.click(screen.getByRole('tab', { name: 'Writing 3 of 4' }))
  await waitFor(() =>
    expect(screen.getByRole('group', { name: 'Writing 3 of 4: Two ways' })).toBeTruthy(),
  )
})

test('a page with nothing on it says so', () => {
  const empty: Part = { id: 'w', kind: 'writing', name: '', files: {}, text: ' ' }
  show(<PartView view="large" part={empty} alt="a page" />)
  expect(screen.getByText('Nothing is written here yet.')).toBeTruthy()
  expect(screen.getByText('0 words')).toBeTruthy()
})
