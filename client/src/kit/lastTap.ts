import { useLayoutEffect, useState, type RefObject } from 'react'
import { flushSync } from 'react-dom'

/** Where a finger or the mouse was, in window pixels, when, and on what one can press. */
type Tap = { x: number; y: number; atMs: number; on: Element | null }
const NEVER: Tap = { x: 0, y: 0, atMs: -Infinity, on: null }
let last = NEVER
let before = NEVER

/** How long what appears under a finger does nothing: the second of two taps is not meant for it. */
const GUARD_MS = 1000
/** A slow screen comes long after the tap that asked for it: it is watched for so long. */
const REMEMBERED_MS = 4000
/** A finger does not come down at the very same place. */
const NEAR_PX = 12

const PRESSABLE = [
  ...['button', 'link', 'radio', 'checkbox', 'switch', 'tab'].map((role) => `[role="${role}"]`),
  ...['button', 'a'],
].join(', ')

/** Watches every tap of the page; once, when the page begins. */
export function watchTaps(): void {
  window.addEventListener(
    'pointerdown',
    ({ clientX: x, clientY: y, target, timeStamp: atMs }) => {
      before = last
      const on = target instanceof Element ? target.closest(PRESSABLE) : null
      last = { x, y, atMs, on }
    },
    { capture: true, passive: true },
  )
  window.addEventListener('pointerup', ({ timeStamp: atMs }) => (last = { ...last, atMs }), {
    capture: true,
    passive: true,
  })
  // Whoever has typed something meanwhile means what they tap next.
  for (const type of ['keydown', 'input'] as const)
    window.addEventListener(type, () => (last = NEVER), { capture: true, passive: true })
  // What has moved under a finger since it came down the first time is not meant either.
  window.addEventListener(
    'click',
    (event) => {
      if (event.detail === 0 || !isStray()) return
      event.preventDefault()
      event.stopImmediatePropagation()
    },
    { capture: true },
  )
}

/** Whether the tap of this moment came too soon after one at the same place, on something else. */
function isStray(): boolean {
  const near = Math.hypot(last.x - before.x, last.y - before.y) <= 2 * NEAR_PX
  const soon = last.atMs - before.atMs < GUARD_MS
  return near && soon && before.on !== null && last.on !== null && before.on !== last.on
}

/**
 * How long something that has just appeared lets taps go by.
 * @returns milliseconds, 0 where no finger was just now
 */
function guardMsFor(element: HTMLElement): number {
  const { x, y, atMs } = last
  // Where it lies is asked only where somebody was: to ask costs the whole page its layout.
  if (performance.now() - atMs >= REMEMBERED_MS) return 0
  const { left, right, top, bottom } = element.getBoundingClientRect()
  const under =
    x >= left - NEAR_PX && x <= right + NEAR_PX && y >= top - NEAR_PX && y <= bottom + NEAR_PX
  return under ? GUARD_MS : 0
}

/**
 * Whether something has only just appeared under a finger.
 * @param place - An element, or a view that is one.
 * @param does - What a tap on it does: where that changes, it has appeared anew.
 */
export function useJustAppeared(place: RefObject<unknown>, does?: string): boolean {
  const [early, setEarly] = useState(false)
  useLayoutEffect(() => {
    const element = place.current
    const ms = element instanceof HTMLElement ? guardMsFor(element) : 0
    if (ms === 0) return
    setEarly(true)
    let timer = 0
    // From when it is seen: a slow tablet draws long after it knows what to draw.
    const frame = requestAnimationFrame(() => {
      // With what answers a tap, which React would hand over a moment after it looks ready: a tap
      // between the two would be lost.
      timer = window.setTimeout(() => flushSync(() => setEarly(false)), ms)
    })
    return () => {
      cancelAnimationFrame(frame)
      clearTimeout(timer)
      setEarly(false)
    }
  }, [place, does])
  return early
}
