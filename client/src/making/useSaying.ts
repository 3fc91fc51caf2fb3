import { LONGEST_VOICE_MS } from '@nibquill/core'
import { useEffect, useRef, useState } from 'react'
import { canRecord, record, type Recording } from '../device/microphone'
import { t } from './words'

/** What was said. `quiet`: next to nothing was heard; `tooLoud`: it was cut off at its loudest. */
export type Said = { file: File; quiet: boolean; tooLoud: boolean }
export type Saying =
  | { at: 'ready'; trouble: 'refused' | 'missing' | null }
  | { at: 'asking' }
  | { at: 'recording'; paused: boolean }
  | { at: 'said'; said: Said }

const LOOK_EVERY_MS = 100
/** Less than this all the while is a room, not a voice. */
const QUIET = 0.03
const CUT_OFF = { level: 0.99, times: 3 }
/** So many levels stay in sight. */
const LEVELS = 60

/** Records what a pupil says, up to five minutes, and what became of it. */
export function useSaying() {
  const [saying, setSaying] = useState<Saying>({
    at: 'ready',
    trouble: canRecord() ? null : 'missing',
  })
  const [spokenMs, setSpokenMs] = useState(0)
  const [levels, setLevels] = useState<readonly number[]>([])
  const running = useRef<Recording | null>(null)
  const heard = useRef({ highest: 0, cutOff: 0 })
  const paused = saying.at === 'recording' && saying.paused
  const going = saying.at === 'recording' && !paused

  const start = async () => {
    setSaying({ at: 'asking' })
    heard.current = { highest: 0, cutOff: 0 }
    setSpokenMs(0)
    setLevels([])
    try {
      running.current = await record(t('voiceName'))
      setSaying({ at: 'recording', paused: false })
    } catch (error) {
      const missing = error instanceof DOMException && error.name === 'NotFoundError'
      setSaying({ at: 'ready', trouble: missing ? 'missing' : 'refused' })
    }
  }
  /** @returns what was said; null where nothing ran */
  const stop = async (): Promise<Said | null> => {
    const recording = running.current
    running.current = null
    if (!recording) return null
    const file = await recording.stop()
    const { highest, cutOff } = heard.current
    const said = { file, quiet: highest < QUIET, tooLoud: cutOff >= CUT_OFF.times }
    setSaying({ at: 'said', said })
    return said
  }
  const pause = () => {
    if (paused) running.current?.goOn()
    else running.current?.pause()
    setSaying({ at: 'recording', paused: !paused })
  }

  const end = useRef(stop)
  end.current = stop
  useEffect(() => {
    if (!going) return
    let since = performance.now()
    const timer = setInterval(() => {
      const level = running.current?.level() ?? 0
      heard.current.highest = Math.max(heard.current.highest, level)
      if (level >= CUT_OFF.level) heard.current.cutOff++
      const now = performance.now()
      const spoken = now - since
      since = now
      setSpokenMs((before) => before + spoken)
      setLevels((before) => [...before.slice(1 - LEVELS), level])
    }, LOOK_EVERY_MS)
    return () => clearInterval(timer)
  }, [going])
  const full = spokenMs >= LONGEST_VOICE_MS
  useEffect(() => {
    if (full) void end.current()
  }, [full])
  return {
    ...{ saying, spokenMs, levels, start, stop, pause },
    again: () => setSaying({ at: 'ready', trouble: null }),
    /** As it was before it was to be said again. */
    takeBack: (said: Said) => setSaying({ at: 'said', said }),
  }
}
