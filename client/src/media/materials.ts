import type { MediaKind } from '@nibquill/core'
import { MEDIA } from '@nibquill/core'
import { useEffect, useRef, useState } from 'react'
import { v7 as newId } from 'uuid'
import { sentenceOf } from '../kit/problems'

import { kindOfFile } from './kindOfFile'
import { hashOf, transfer } from './transfer'
import { t } from './words'

export type Material = { mediaId: string; name: string; kind: MediaKind }
/** One file of a teacher's on its way to a task or a notice. */
export type Sending = { mediaId: string; name: string; share: number; sentence: string | null }

/** Sends files while a form is open and says when each has arrived; leaving it stops them. */
export function useMaterials(onArrived: (material: Material) => void) {
  const [sendings, setSendings] = useState<readonly Sending[]>([])
  const files = useRef(new Map<string, File>())
  const gone = useRef(new AbortController())
  const latest = useRef(onArrived)
  latest.current = onArrived
  useEffect(() => {
    gone.current = new AbortController()
    return () => gone.current.abort()
  }, [])
  const update = (mediaId: string, change: Partial<Sending>) =>
    setSendings((now) => now.map((one) => (one.mediaId === mediaId ? { ...one, ...change } : one)))
  const forget = (mediaId: string) => {
    files.current.delete(mediaId)
    setSendings((now) => now.filter((one) => one.mediaId !== mediaId))
  }
  const bring = async (mediaId: string) => {
    const file = files.current.get(mediaId)
    if (!file) return
    update(mediaId, { sentence: null })
    try {
      const what = { mediaId, name: file.name, hash: await hashOf(file) }
      const { kind } = await transfer(what, file, gone.current.signal, (sent) =>
        update(mediaId, { share: sent / file.size }),
      )
      if (!files.current.has(mediaId)) return
      forget(mediaId)
      latest.current({ mediaId, name: file.name, kind })
    } catch (error) {
      if (!gone.current.signal.aborted) update(mediaId, { sentence: sentenceOf(error) })
    }
  }
  /** One after the other: a recording does not wait long behind a paper. */
  const send = async (picked: readonly File[]) => {
    const fresh = picked.map((file) => ({ file, mediaId: newId() }))
    for (const { file, mediaId } of fresh) files.current.set(mediaId, file)
    setSendings((now) => [
      ...now,
      ...fresh.map(({ file, mediaId }) => ({
        ...{ mediaId, name: file.name, share: 0 },
        sentence: refusalOf(file),
      })),
    ])
    for (const { file, mediaId } of fresh) if (!refusalOf(file)) await bring(mediaId)
  }
  return { sendings, send, tryAgain: bring, forget }
}

function refusalOf(file: File): string | null {
  const { mostBytes } = MEDIA[kindOfFile(file)]
  return file.size === 0
    ? t('empty')
    : file.size > mostBytes
      ? t('tooLarge', { megabytes: inMegabytes(mostBytes) })
      : null
}

/** Whole megabytes, as limits are said. */
export const inMegabytes = (bytes: number): number => Math.round(bytes / 1024 / 1024)
