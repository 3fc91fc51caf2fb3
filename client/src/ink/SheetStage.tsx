import {
  forwardRef,
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
  type CSSProperties,
} from 'react'
import type { Drawing } from './drawing'
import type { Pictures } from '../sheets/pictures'
import { Stage, type Hears } from './stage'
import { t } from './words'

export type StageHandle = Pick<Stage, 'zoom' | 'leaveKeys'>
/** What a place, Draw or Arrange, does with a hand and with keys. */
export type Work = Pick<Hears, 'begin' | 'frame' | 'onKey'>

type Props = {
  drawing: Drawing
  pictures: Pictures
  work: Work
  /** What it is to those who listen. */
  label: string
  cursor: CSSProperties['cursor']
  onZoom: (times: number) => void
}

/** Keeps one stage on two canvases, and tells it what is done there. */
export const SheetStage = forwardRef<StageHandle, Props>(function SheetStage(
  { drawing, pictures, work, label, cursor, onZoom },
  ref,
) {
  const [below, above] = [useRef<HTMLCanvasElement>(null), useRef<HTMLCanvasElement>(null)]
  const stage = useRef<Stage>(null)
  const now = useRef(work)
  now.current = work
  const [said, setSaid] = useState('')
  useEffect(() => {
    const hears: Hears = {
      begin: (first, reach) => now.current.begin(first, reach),
      frame: (reach) => now.current.frame(reach),
      onKey: (event) => now.current.onKey(event),
      sheet: () => drawing.sheet,
      act: (changes) => drawing.act(changes),
      wordsFor,
      say: (what, at) => setSaid(t(`said.${what}`, { x: inCm(at.x), y: inCm(at.y) })),
      onZoom,
    }
    const made = new Stage(below.current!, above.current!, hears, pictures)
    stage.current = made
    const stop = drawing.subscribe(() => made.refresh())
    return () => {
      stop()
      made.close()
    }
    // One stage for one drawing; what it asks, it asks anew each time.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [drawing, pictures])
  // Another thing chosen, another tool: seen at once.
  useEffect(() => stage.current?.refresh())
  useImperativeHandle(ref, () => ({
    zoom: (times) => stage.current?.zoom(times),
    leaveKeys: () => stage.current?.leaveKeys(),
  }))
  return (
    <div style={FILLS}>
      <canvas ref={below} style={FILLS} aria-hidden />
      <canvas
        ref={above}
        style={{ ...FILLS, touchAction: 'none', cursor }}
        role="application"
        tabIndex={0}
        aria-label={label}
      />
      <div role="status" style={HEARD_ONLY}>
        {said}
      </div>
    </div>
  )
})

const inCm = (units: number): string => `${Math.round(units / 100) / 10} cm`
const wordsFor = (cm: number, degrees: number | null): string =>
  degrees === null ? t('measure', { cm }) : t('measureTurned', { cm, degrees })

const FILLS: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%' }
const HEARD_ONLY: CSSProperties = {
  ...{ position: 'absolute', width: 1, height: 1, overflow: 'hidden' },
  ...{ clipPath: 'inset(50%)', whiteSpace: 'nowrap' },
}
