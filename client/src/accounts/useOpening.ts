import { useEffect, useState } from 'react'
import { alsoForget } from './session'
import { keepApplication } from '../device/keepApplication'
import { queryClient } from '../api/queryClient'
import { recallQueries, rememberQueries } from '../api/rememberQueries'

let opened = false

/**
 * Before the first screen: what this tablet remembers is taken up, and the application itself is
 * kept for days without a network.
 */
export function useOpening(): boolean {
  const [ready, setReady] = useState(opened)
  useEffect(() => {
    if (opened) return
    opened = true
    keepApplication()
    void recallQueries(queryClient).then(() => {
      alsoForget(rememberQueries(queryClient))
      setReady(true)
    })
  }, [])
  return ready
}
