import { act, fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { show } from '../testing'
import { Player } from './Player'

/** A recording that plays as far as a test says. */
function heardAudio(): HTMLAudioElement {
  const audio = document.createElement('audio')
  let paused = true
  Object.defineProperty(audio, 'paused', { get: () => paused })
  audio.play = () => Promise.resolve(void (paused = false))
  audio.pause = () => void (paused = true)
  jest.spyOn(window, 'Audio').mockImplementation(() => audio)
  return audio
}
const comesTo = (audio: HTMLAudioElement, seconds: number) =>
  act(() => {
    audio.currentTime = seconds
    audio.dispatchEvent(new Event('timeupdate'))
  })

test('without the silence at its ends a recording begins and ends where something is heard', () => {
  const audio = heardAudio()
  const file = { mediaId: 'said', state: 'arrived' } as const
  show(<Player file={file} heard={{ fromMs: 1000, toMs: 3000 }} />)
  fireEvent.click(screen.getByRole('button', { name: 'Hear it' }))
  expect([audio.currentTime, audio.paused]).toEqual([1, false])
  comesTo(audio, 2)
  expect(audio.paused).toBe(false)
  comesTo(audio, 3.1)
  expect([audio.currentTime, audio.paused]).toEqual([1, true])
  expect(screen.getByRole('button', { name: 'Hear it' })).toBeTruthy()
})

test('all of it is played where nothing was cut off', () => {
  const audio = heardAudio()
  show(<Player file={{ mediaId: 'said', state: 'arrived' }} />)
  fireEvent.click(screen.getByRole('button', { name: 'Hear it' }))
  comesTo(audio, 400)
  expect([audio.currentTime, audio.paused]).toEqual([400, false])
})

function MadeReady() {
  const [state, setState] = useState<'arrived' | 'ready'>('arrived')
  return (
    <>
      <button onClick={() => setState('ready')}>At school it is made ready</button>
      <Player file={{ mediaId: 'said', state }} />
    </>
  )
}

test('who listens is not cut off when what they hear is made ready; the next time it is read there', () => {
  const audio = heardAudio()
  show(<MadeReady />)
  const first = audio.getAttribute('src')
  fireEvent.click(screen.getByRole('button', { name: 'Hear it' }))
  comesTo(audio, 2)
  fireEvent.click(screen.getByRole('button', { name: 'At school it is made ready' }))
  expect([audio.getAttribute('src'), audio.paused, audio.currentTime]).toEqual([first, false, 2])
  fireEvent.click(screen.getByRole('button', { name: 'Stop it' }))
  expect(audio.getAttribute('src')).toBe('/api/media/said/playable')
})
