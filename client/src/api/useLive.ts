import { LiveEvent, type LiveTopic } from '@nibquill/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import * as v from 'valibot'

/** Which questions to ask again when something of a topic changed. */
const ASK_AGAIN: Record<LiveTopic, readonly string[]> = {
  pieces: ['pieces', 'review', 'notices', 'tasks', 'school', 'folders', 'portfolio'],
  review: ['review'],
  notices: ['notices'],
  portfolio: ['portfolio', 'pieces', 'book'],
  book: ['book'],
  media: ['pieces'],
  sharing: ['sharing'],
  school: ['school'],
  tasks: ['tasks', 'school'],
  folders: ['folders'],
  accounts: ['accounts'],
}

/** Keeps what is on screen up to date. The browser connects again by itself; after a gap everything is asked anew. */
export function useLive(signedIn: boolean): void {
  const queries = useQueryClient()
  useEffect(() => {
    if (!signedIn || typeof EventSource === 'undefined') return
    const source = new EventSource('/api/live')
    let lost = false
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const event = v.safeParse(LiveEvent, JSON.parse(data))
      if (!event.success) return
      for (const capability of ASK_AGAIN[event.output.topic]) void queries.invalidateQueries({ queryKey: [capability] })
    }
    const everything = () => void queries.invalidateQueries()
    source.addEventListener('missed', everything)
    source.onerror = () => {
      lost = true
    }
    source.onopen = () => {
      if (lost) everything()
      lost = false
    }
    return () => source.close()
  }, [signedIn, queries])
}
