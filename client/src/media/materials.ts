import type { MediaKind } from '@nibquill/core'
import { useEffect, useState, useSyncExternalStore } from 'react'
import { Uploader, type Sending } from './uploader'

export type Material = { mediaId: string; name: string; kind: MediaKind }
type Listener = (material: Material) => void
const listeners = new Map<string, Listener>()

/** A teacher's files on their way to a task or a notice. */
export const materials = new Uploader(({ pieceId, mediaId, name }, _signal, { kind }) => {
  listeners.get(pieceId)?.({ mediaId, name, kind })
  return Promise.resolve()
})

/** Sends files for one place (a task or a notice by its id) and says when each has arrived. */
export function useMaterials(
  place: string,
  onArrived: Listener,
): { sendings: readonly Sending[]; send: (ownerId: string, files: readonly File[]) => void } {
  const all = useSyncExternalStore(
    materials.subscribe,
    materials.getSnapshot,
    materials.getSnapshot,
  )
  const [latest] = useState<{ listener: Listener }>({ listener: onArrived })
  useEffect(() => {
    latest.listener = onArrived
  })
  useEffect(() => {
    listeners.set(place, (material) => latest.listener(material))
    return () => void listeners.delete(place)
  }, [place, latest])
  return {
    sendings: all.filter(({ pieceId }) => pieceId === place),
    send: (ownerId, files) => {
      for (const file of files) void materials.add(ownerId, place, file)
    },
  }
}
