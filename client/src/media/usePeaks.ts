import { Peaks } from '@nibquill/contract'
import { useQuery } from '@tanstack/react-query'
import { api } from '../api/api'
import type { Readable } from './mediaAddress'

/** What is drawn of a recording; null until it has been looked through, or where it never was. */
export function usePeaks({ mediaId, state }: Readable, link?: string): Peaks | null {
  const query = link ? `?link=${encodeURIComponent(link)}` : ''
  return (
    useQuery({
      queryKey: ['peaks', mediaId],
      queryFn: ({ signal }) => api.get(`/media/${mediaId}/peaks${query}`, Peaks, signal),
      staleTime: Infinity,
      retry: false,
      // What is still on this tablet, or on its way, has none.
      enabled: state === 'ready',
    }).data ?? null
  )
}
