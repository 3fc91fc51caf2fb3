import { useSyncExternalStore } from 'react'

const SPEEDS = [1, 1.25, 1.5, 2] as const
const KEY = 'nibquill.playing-speed'
const listeners = new Set<() => void>()
let speed = remembered()

function remembered(): number {
  try {
    const kept = Number(localStorage.getItem(KEY))
    return SPEEDS.find((one) => one === kept) ?? 1
  } catch {
    return 1
  }
}

const set = (next: number) => {
  speed = next
  try {
    localStorage.setItem(KEY, String(next))
  } catch {
    // This browser keeps nothing; it holds for as long as the page does.
  }
  listeners.forEach((tell) => tell())
}
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** How fast whoever sits here likes to listen: alike for every recording. */
export const speeds = {
  use: (): [number, (next: number) => void] => [useSyncExternalStore(subscribe, () => speed), set],
  after: (now: number): number => SPEEDS[(SPEEDS.findIndex((one) => one === now) + 1) % 4]!,
}
