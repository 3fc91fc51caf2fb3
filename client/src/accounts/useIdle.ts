import { useEffect, useState } from 'react'

const MINUTE_MS = 60_000
const CHECK_MS = 1000
/** How long the question stands before the desk closes. */
const WARNING_MS = 20_000
const SIGNS = ['pointerdown', 'keydown', 'wheel', 'touchstart'] as const

/**
 * Calls back when nobody has touched the tablet for a while. Counted by the clock, so that a
 * sleeping tablet counts too.
 * @param minutes - Null: never.
 * @returns whether the question `Are you still there?` stands; any touch takes it away
 */
export function useIdle(minutes: number | null, onIdle: () => void): boolean {
  const [asking, setAsking] = useState(false)
  useEffect(() => {
    if (minutes === null) return setAsking(false)
    let touchedAt = Date.now()
    let done = false
    const touched = () => {
      touchedAt = Date.now()
      setAsking(false)
    }
    const check = setInterval(() => {
      const leftMs = minutes * MINUTE_MS - (Date.now() - touchedAt)
      setAsking(leftMs <= WARNING_MS && leftMs > 0)
      if (leftMs > 0 || done) return
      done = true
      onIdle()
    }, CHECK_MS)
    for (const sign of SIGNS)
      window.addEventListener(sign, touched, { passive: true, capture: true })
    return () => {
      clearInterval(check)
      for (const sign of SIGNS) window.removeEventListener(sign, touched, { capture: true })
    }
  }, [minutes, onIdle])
  return asking
}

let idled = false
/** Remembers, until the door is shown, that nobody chose to leave. */
export const noteIdle = (): void => {
  idled = true
}
/** Whether the desk closed by itself; says so once. */
export const takeIdle = (): boolean => {
  const was = idled
  idled = false
  return was
}
