import { heardIn, QUIET, type Stretch } from '@nibquill/core/sound/silence'
import { useEffect, useRef, useState } from 'react'
import { canRecord, type Recording } from './recording'

/**
 * What was recorded, and how long it is. `heard`: all of it but the silence at its ends, where there is
 * some; `quiet`: next to nothing was heard; `tooLoud`: it was cut off at its loudest.
 */
export type Recorded = {
  file: File
  ms: number
  heard: Stretch | null
  quiet: boolean
  tooLoud: boolean
}
type State =
  | { at: 'ready'; trouble: 'refused' | 'missing' | null }
  | { at: 'asking' }
  | { at: 'recording'; paused: boolean }
  | { at: 'recorded'; recorded: Recorded }

const LOOK_EVERY_MS = 100
const CUT_OFF = { level: 0.99, times: 3 }
/** So many levels stay in sight. */
const LEVELS = 60

/**
 * Records what a pupil says or films, in one go, and what became of it.
 * @param begin - Opens what records; throws a DOMException where it may not.
 * @param longestMs - It ends by itself then.
 */
export function useRecorded(begin: () => Promise<Recording>, longestMs: number) {
  const [state, setState] = useState<State>({
    at: 'ready',
    trouble: canRecord() ? null : 'missing',
  })
  const [runMs, setRunMs] = useState(0)
  const [levels, setLevels] = useState<readonly number[]>([])
  const running = useRef<Recording | null>(null)
  const heard = useRef({ highest: 0, cutOff: 0, levels: [] as { ms: number; level: number }[] })
  const paused = state.at === 'recording' && state.paused
  const going = state.at === 'recording' && !paused

  const start = async () => {
    setState({ at: 'asking' })
    heard.current = { highest: 0, cutOff: 0, levels: [] }
    setRunMs(0)
    setLevels([])
    try {
      running.current = await begin()
      setState({ at: 'recording', paused: false })
    } catch (error) {
      const missing = error instanceof DOMException && error.name === 'NotFoundError'
      setState({ at: 'ready', trouble: missing ? 'missing' : 'refused' })
    }
  }
  /** @returns what was recorded; null where nothing ran */
  const stop = async (): Promise<Recorded | null> => {
    const recording = running.current
    running.current = null
    if (!recording) return null
    const file = await recording.stop()
    const { highest, cutOff, levels } = heard.current
    const ms = recording.ms()
    const recorded = {
      ...{ file, ms, heard: heardIn(levels, ms) },
      ...{ quiet: highest < QUIET, tooLoud: cutOff >= CUT_OFF.times },
    }
    setState({ at: 'recorded', recorded })
    return recorded
  }
  const pause = () => {
    if (paused) running.current?.goOn()
    else running.current?.pause()
    setState({ at: 'recording', paused: !paused })
  }

  const end = useRef(stop)
  end.current = stop
  useEffect(() => {
    if (!going) return
    const timer = setInterval(() => {
      const level = running.current?.level() ?? 0
      heard.current.highest = Math.max(heard.current.highest, level)
      if (level >= CUT_OFF.level) heard.current.cutOff++
      const ms = running.current?.ms() ?? 0
      heard.current.levels.push({ ms, level })
      setRunMs(ms)
      setLevels((before) => [...before.slice(1 - LEVELS), level])
    }, LOOK_EVERY_MS)
    return () => clearInterval(timer)
  }, [going])
  const full = runMs >= longestMs
  useEffect(() => {
    if (full) void end.current()
  }, [full])
  return {
    ...{ state, runMs, levels, start, stop, pause },
    /** How long it is at this very moment. */
    ms: () => running.current?.ms() ?? 0,
    again: () => setState({ at: 'ready', trouble: null }),
    /** As it was before it was to be recorded again. */
    takeBack: (recorded: Recorded) => setState({ at: 'recorded', recorded }),
  }
}
