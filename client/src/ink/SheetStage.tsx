import {
  forwardRef,
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
  type CSSProperties,
} from 'react'
import type { Drawing } from './drawing'
import type { Hold } from './hold'
import { Stage, type Hears } from './stage'
import { t } from './words'

export type StageHandle = { zoom: (times: number) => void }

/** Keeps one stage on two canvases, and tells it what is held. */
export const SheetStage = forwardRef<
  StageHandle,
  { drawing: Drawing; hold: Hold; onZoom: (times: number) => void }
>(function SheetStage({ drawing, hold, onZoom }, ref) {
  const [below, above] = [useRef<HTMLCanvasElement>(null), useRef<HTMLCanvasElement>(null)]
  const stage = useRef<Stage>(null)
  const held = useRef(hold)
  held.current = hold
  const [said, setSaid] = useState('')
  useEffect(() => {
    const hears: Hears = {
      hold: () => held.current,
      sheet: () => drawing.sheet,
      act: (changes) => drawing.act(changes),
      wordsFor,
      say: (what, at) => setSaid(t(`said.${what}`, { x: inCm(at.x), y: inCm(at.y) })),
      onZoom,
    }
    const made = new Stage(below.current!, above.current!, hears)
    stage.current = made
    const stop = drawing.subscribe(() => made.refresh())
    return () => {
      stop()
      made.close()
    }
    // One stage for one drawing; what it asks, it asks anew each time.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [drawing])
  useImperativeHandle(ref, () => ({ zoom: (times) => stage.current?.zoom(times) }))
  return (
    <div style={FILLS}>
      <canvas ref={below} style={FILLS} aria-hidden />
      <canvas
        ref={above}
        style={{ ...FILLS, touchAction: 'none', cursor: 'crosshair' }}
        role="application"
        tabIndex={0}
        aria-label={t('paper')}
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
