import type { Point } from '@nibquill/core/tidy/projective'
import { useRef } from 'react'
import { colours } from '../kit/theme'

const SIZE_PX = 56
const STEP_SHARE = 0.004
const LARGE_STEP_SHARE = 0.03

/**
 * A corner to drag: by finger, mouse or arrow keys.
 * @param place - In pixels of the stage.
 * @param stage - Its size, which a share of 1 stands for.
 * @param onMove - The new place as shares 0..1 of the stage.
 */
export function Handle({
  label,
  help,
  place,
  stage,
  onStart,
  onMove,
  onEnd,
}: {
  label: string
  help: string
  place: Point
  stage: { width: number; height: number }
  onStart: () => void
  onMove: (share: Point) => void
  onEnd: () => void
}) {
  const held = useRef<Point | null>(null)
  const shareOf = (x: number, y: number): Point => ({ x: x / stage.width, y: y / stage.height })
  return (
    <button
      type="button"
      aria-label={label}
      title={help}
      style={{
        position: 'absolute',
        left: place.x - SIZE_PX / 2,
        top: place.y - SIZE_PX / 2,
        width: SIZE_PX,
        height: SIZE_PX,
        padding: 0,
        border: 'none',
        background: 'transparent',
        touchAction: 'none',
        cursor: 'grab',
        borderRadius: SIZE_PX,
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        // The finger keeps its distance to the corner, so that nothing jumps.
        held.current = { x: event.clientX - place.x, y: event.clientY - place.y }
        onStart()
      }}
      onPointerMove={(event) => {
        if (held.current)
          onMove(shareOf(event.clientX - held.current.x, event.clientY - held.current.y))
      }}
      onPointerUp={() => {
        held.current = null
        onEnd()
      }}
      onPointerCancel={() => {
        held.current = null
        onEnd()
      }}
      onKeyDown={(event) => {
        const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
          event.key
        ]
        if (!by) return
        event.preventDefault()
        const step = event.shiftKey ? LARGE_STEP_SHARE : STEP_SHARE
        const { x, y } = shareOf(place.x, place.y)
        if (!event.repeat) onStart()
        onMove({ x: x + by[0]! * step, y: y + by[1]! * step })
        onEnd()
      }}
    >
      <Mark />
    </button>
  )
}

const Mark = () => (
  <span
    style={{
      display: 'block',
      margin: 'auto',
      width: 26,
      height: 26,
      borderRadius: 8,
      transform: 'rotate(45deg)',
      background: colours.sheet,
      border: `5px solid ${colours.aubergine}`,
      boxShadow: '0 1px 5px rgba(0,0,0,0.5)',
      boxSizing: 'border-box',
    }}
  />
)
