import { useEffect } from 'react'

const MINUTE_MS = 60_000
const CHECK_MS = 5000
const SIGNS = ['pointerdown', 'keydown', 'wheel', 'touchstart'] as const

/** Calls back when nobody has touched the tablet for a while. Counted by the clock, so that a sleeping tablet counts too. */
export function useIdleSignOut(minutes: number | null, onIdle: () => void): void {
  useEffect(() => {
    if (minutes === null) return
    let touchedAt = Date.now()
    const touched = () => {
      touchedAt = Date.now()
    }
    const check = setInterval(() => {
      if (Date.now() - touchedAt > minutes * MINUTE_MS) onIdle()
    }, CHECK_MS)
    for (const sign of SIGNS) window.addEventListener(sign, touched, { passive: true })
    return () => {
      clearInterval(check)
      for (const sign of SIGNS) window.removeEventListener(sign, touched)
    }
  }, [minutes, onIdle])
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
