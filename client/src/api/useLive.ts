import { LiveEvent } from '@nibquill/contract'
import { backOffMs } from '@nibquill/core'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import * as v from 'valibot'
import { HeardChanges } from './heardChanges'

/**
 * Keeps what is on screen up to date. The browser connects again by itself; after a gap everything
 * is asked anew.
 */
export function useLive(signedIn: boolean): void {
  const queries = useQueryClient()
  useEffect(() => {
    if (!signedIn || typeof EventSource === 'undefined') return
    const everything = () => void queries.invalidateQueries()
    const heard = new HeardChanges(queries)
    const leave = listen((event) => {
      if (event === 'missed') return everything()
      // A desk that was ended is closed at once, not at its next question.
      if (event === 'refused') return void queries.invalidateQueries({ queryKey: ['session'] })
      heard.hear(event)
    })
    return () => {
      leave()
      heard.stop()
    }
  }, [signedIn, queries])
}

/**
 * Listens until told to stop. A stream that breaks off is opened again by the browser; one that was
 * refused (the server is away, or there
 * are enough) is not, so it is opened here, later and later, one at a time.
 */
export function listen(onEvent: (event: LiveEvent | 'missed' | 'refused') => void): () => void {
  let source: EventSource | null = null
  let retry: ReturnType<typeof setTimeout> | null = null
  let failures = 0
  let lost = false
  const open = () => {
    retry = null
    const opened = new EventSource('/api/live')
    source = opened
    opened.onmessage = ({ data }: MessageEvent<string>) => {
      const event = v.safeParse(LiveEvent, JSON.parse(data))
      if (event.success) onEvent(event.output)
    }
    opened.addEventListener('missed', () => onEvent('missed'))
    opened.onopen = () => {
      failures = 0
      if (lost) onEvent('missed')
      lost = false
    }
    opened.onerror = () => {
      lost = true
      if (opened.readyState !== CLOSED || retry) return
      onEvent('refused')
      failures += 1
      retry = setTimeout(open, backOffMs(failures, Math.random(), AGAIN))
    }
  }
  open()
  return () => {
    if (retry) clearTimeout(retry)
    source?.close()
  }
}

/** `EventSource.CLOSED`, @see HTML Living Standard, 9.2.2 */
const CLOSED = 2
const AGAIN = { firstMs: 4000, mostMs: 60_000, leastMs: 1000 }
