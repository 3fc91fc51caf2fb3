import type { Part, PartFile } from '@nibquill/contract'
import { takeWhatFits } from '@nibquill/core'
import { useState } from 'react'
import { fitForTablet } from '../media/fitForTablet'
import { hashOf } from '../media/transfer'
import { strings } from './strings'
import { sendPhotos, uploader } from './uploads'

type Place = {
  ownerId: string
  pieceId: string
  taskId: string | null
  parts: Part[]
  count: number
  onStarted: () => void
}

/**
 * Photos on their way into a piece: those that do not fit any more, that are too large for a
 * tablet, or that are in it already
 * are spoken of before anything else happens to them.
 */
export function useTakingPhotos({ ownerId, pieceId, taskId, parts, count, onStarted }: Place) {
  const [problem, setProblem] = useState<unknown>(null)
  const [words, setWords] = useState<string[]>([])
  const [again, setAgain] = useState<File[]>([])

  const keep = async (files: File[]) => {
    if (files.length === 0) return
    setProblem(null)
    await sendPhotos(ownerId, pieceId, taskId, files)
    onStarted()
  }
  const send = (files: File[]) => keep(files).catch(setProblem)

  const take = async (picked: File[]) => {
    if (picked.length === 0) return
    const { taken, left } = takeWhatFits(picked, count)
    const said =
      left.length > 0 ? [taken.length === 0 ? strings.full : strings.leftOut(left.length)] : []
    const fresh: File[] = []
    const twice: File[] = []
    const seen = new Set(await hashesIn(pieceId, parts))
    // One after the other: a tablet holds one large picture at a time.
    for (const file of taken) {
      const { file: fit, smaller } = await fitForTablet(file)
      if (smaller) said.push(strings.madeSmaller(file.name))
      const hash = await hashOf(fit).catch(() => null)
      if (hash && seen.has(hash)) twice.push(fit)
      else fresh.push(fit)
      if (hash) seen.add(hash)
    }
    setWords(said)
    setAgain(twice)
    await send(fresh)
  }
  const useAgain = () => {
    // Another name, so that it is not taken for the same file still on its way.
    void send(
      again.map(
        (file) => new File([file], file.name, { type: file.type, lastModified: Date.now() }),
      ),
    )
    setAgain([])
  }
  return { take, keep, problem, words, again, useAgain, leaveOut: () => setAgain([]) }
}

/** Hashes of everything that is in a piece or on its way there. */
async function hashesIn(pieceId: string, parts: readonly Part[]): Promise<string[]> {
  const onTheWay = uploader
    .getSnapshot()
    .filter((sending) => sending.pieceId === pieceId && sending.state !== 'refused')
  const hashes = await Promise.all(onTheWay.map(({ partId }) => uploader.hashOf(partId)))
  const there = parts.flatMap(({ files }) => Object.values<PartFile>(files))
  return [...there.map(({ sentSha256 }) => sentSha256), ...hashes.filter((hash) => hash !== null)]
}
