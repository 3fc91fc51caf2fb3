import { act, cleanup, fireEvent, screen } from '@testing-library/react'
import { show } from '../testing'
import { Ask } from './Ask'
import { ForPupil } from './forPupil'
import { Listen } from './Listen'
import { Empty, Notice, ProblemNotice } from './Notice'
import { silence } from './speech'

/**
 * A browser's voice: says one thing after the other, and tells of the end later, as browsers do.
 */
class Words {
  lang = ''
  rate = 1
  onend = () => undefined as void
  onerror = () => undefined as void
  constructor(readonly text: string) {}
}
const voice = {
  saying: [] as Words[],
  speak: (words: Words) => void voice.saying.push(words),
  cancel: () => {
    for (const words of voice.saying.splice(0)) setTimeout(() => words.onerror(), 0)
  },
}
const heard = () => voice.saying.map(({ text }) => text)
const later = () => act(() => new Promise<void>((resolve) => setTimeout(resolve, 5)))

let recordings: { src: string; playing: boolean; onended: () => void }[] = []
const recorder = (works: boolean) =>
  class {
    playing = false
    onended = () => undefined as void
    constructor(readonly src: string) {
      recordings.push(this)
    }
    play() {
      this.playing = works
      return works ? Promise.resolve() : Promise.reject(new DOMException('no', 'NotSupportedError'))
    }
    pause() {
      this.playing = false
    }
  }
beforeEach(() => {
  recordings = []
  Object.assign(globalThis, {
    speechSynthesis: voice,
    SpeechSynthesisUtterance: Words,
    Audio: recorder(true),
  })
})
afterEach(() => {
  silence()
  Reflect.deleteProperty(globalThis, 'speechSynthesis')
})

test('what is tapped second is heard to its end, and the first is still', async () => {
  show(
    <>
      <Listen text="Draw a bridge." />
      <Listen text="Build a boat." />
    </>,
    {},
  )
  const [bridge, boat] = screen.getAllByRole('button', { name: 'Listen' })
  fireEvent.click(bridge!)
  expect(heard()).toEqual(['Draw a bridge.'])
  fireEvent.click(boat!)
  await later()
  expect(heard()).toEqual(['Build a boat.'])
  expect(screen.getAllByRole('button', { name: 'Listen' })).toHaveLength(1)
  act(() => voice.saying[0]!.onend())
  expect(screen.getAllByRole('button', { name: 'Listen' })).toHaveLength(2)
})

test('tapped again, and on a screen one leaves, it is still', async () => {
  show(<Listen text="Draw a bridge." />, {})
  fireEvent.click(screen.getByRole('button', { name: 'Listen' }))
  fireEvent.click(screen.getByRole('button', { name: 'Stop listening' }))
  expect(heard()).toEqual([])
  fireEvent.click(screen.getByRole('button', { name: 'Listen' }))
  expect(heard()).toEqual(['Draw a bridge.'])
  cleanup()
  expect(heard()).toEqual([])
  await later()
})

test('the teacher’s own voice wins over the browser’s, and is there where a browser has none', () => {
  show(<Listen text="Draw a bridge." recording="/api/media/1/full" />, {})
  fireEvent.click(screen.getByRole('button', { name: 'Listen' }))
  expect(recordings).toMatchObject([{ src: '/api/media/1/full', playing: true }])
  expect(heard()).toEqual([])
  act(() => recordings[0]!.onended())
  expect(screen.getByRole('button', { name: 'Listen' })).toBeTruthy()
  Reflect.deleteProperty(globalThis, 'speechSynthesis')
  cleanup()
  show(<Listen text="Nothing can say this." />, {})
  expect(screen.queryByRole('button')).toBeNull()
})

test('where a recording cannot be played the browser says the words', async () => {
  Object.assign(globalThis, { Audio: recorder(false) })
  show(<Listen text="Draw a bridge." recording="/api/media/1/full" />, {})
  fireEvent.click(screen.getByRole('button', { name: 'Listen' }))
  await later()
  expect(heard()).toEqual(['Draw a bridge.'])
})

test('a recording that fails after something else was tapped does not speak into it', async () => {
  Object.assign(globalThis, { Audio: recorder(false) })
  show(
    <>
      <Listen text="Draw a bridge." recording="/api/media/1/full" />
      <Listen text="Build a boat." />
    </>,
    {},
  )
  const [bridge, boat] = screen.getAllByRole('button', { name: 'Listen' })
  fireEvent.click(bridge!)
  fireEvent.click(boat!)
  await later()
  expect(heard()).toEqual(['Build a boat.'])
})

describe('whatever a pupil’s screen says in words', () => {
  const screens = [
    [
      'a notice',
      <Notice key="" tone="attention" symbol="bulb">
        More light helps.
      </Notice>,
      'More light helps.',
    ],
    [
      'an error',
      <ProblemNotice key="" error={new TypeError('x')} />,
      'Nothing is lost; try again in a moment.',
    ],
    [
      'an empty place',
      <Empty key="" symbol="lock" title="The door is shut">
        Your card works.
      </Empty>,
      'The door is shut. Your card works.',
    ],
    [
      'a question',
      <Ask key="" visible title="Throw it away?" yes="Yes" onYes={() => {}} onNo={() => {}}>
        It comes back.
      </Ask>,
      'Throw it away? It comes back.',
    ],
  ] as const
  test.each(screens)('%s can be heard; for grown-ups it stays quiet', (_, what, says) => {
    show(<ForPupil value>{what}</ForPupil>, {})
    fireEvent.click(screen.getByRole('button', { name: 'Listen' }))
    expect(heard()[0]).toContain(says)
    cleanup()
    show(what, {})
    expect(screen.queryByRole('button', { name: 'Listen' })).toBeNull()
  })
})
