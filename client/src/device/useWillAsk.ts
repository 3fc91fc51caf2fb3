import { useEffect, useState } from 'react'
import { willAsk } from './microphone'

/** Whether the browser will ask before it listens: a child who is told why says yes. */
export function useWillAsk(): boolean {
  const [asks, setAsks] = useState(false)
  useEffect(() => void willAsk().then(setAsks), [])
  return asks
}
