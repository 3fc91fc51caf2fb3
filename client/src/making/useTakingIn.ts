import type { Part, PartFile } from '@nibquill/contract'
import { MAX_PART_NAME_LENGTH, MEDIA, takeWhatFits } from '@nibquill/core'
import { useState } from 'react'
import { fileHere } from '../media/filesHere'
import { fitForTablet } from '../media/fitForTablet'
import { isOfficeFile, kindOfFile, lookAtKind } from '../media/kindOfFile'

import { hashOf } from '../media/transfer'
import { usePieceWork, type FileOfPart } from '../pieces'
import { t } from './words'
import { inMegabytes } from '../media/materials'
import { t as mediaWords } from '../media/words'

type Place = {
  pieceId: string
  taskId: string | null
  parts: Part[]
  onStarted: () => void
}

/**
 * Photos and other files on their way into a piece: those that do not fit any more, that are too
 * large, or that are in it already are spoken of before anything else happens to them.
 */
export function useTakingIn({ pieceId, taskId, parts, onStarted }: Place) {
  const work = usePieceWork(pieceId)
  const [problem, setProblem] = useState<unknown>(null)
  const [words, setWords] = useState<string[]>([])
  const [again, setAgain] = useState<File[]>([])

  const keep = async (files: File[]) => {
    if (files.length === 0) return
    setProblem(null)
    await work.addFiles(await Promise.all(files.map(asPart)), taskId)
    onStarted()
  }
  const send = (files: File[]) => keep(files).catch(setProblem)

  const take = async (picked: File[]) => {
    if (picked.length === 0) return
    const { taken, left } = takeWhatFits(picked, parts.length)
    const said =
      left.length > 0 ? [taken.length === 0 ? t('full') : t('leftOut', { count: left.length })] : []
    const fresh: File[] = []
    const twice: File[] = []
    const seen = new Set(await hashesIn(parts))
    // One after the other: a tablet holds one large picture at a time.
    for (const file of taken) {
      const kind = kindOfFile(file)
      const fault = faultOf(file, MEDIA[kind].mostBytes)
      if (fault) {
        said.push(`${file.name}: ${fault}`)
        continue
      }
      const { file: fit, smaller } =
        kind === 'picture' ? await fitForTablet(file) : { file, smaller: false }
      if (smaller) said.push(t('madeSmaller', { name: file.name }))
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
    void send(again)
    setAgain([])
  }
  return { take, keep, problem, words, again, useAgain, leaveOut: () => setAgain([]) }
}

const PART_OF = { picture: 'photo', film: 'film', sound: 'voice', paper: 'page' } as const

/** A paper goes by the name it was saved under. */
async function asPart(file: File): Promise<FileOfPart> {
  const kind = PART_OF[await lookAtKind(file)]
  const name = kind === 'page' ? file.name.replace(/\.pdf$/i, '') : file.name
  return { file, kind, name: name.slice(0, MAX_PART_NAME_LENGTH) }
}

function faultOf(file: File, mostBytes: number): string | null {
  if (isOfficeFile(file)) return t('officeFile')
  if (file.size === 0) return mediaWords('empty')
  if (file.size <= mostBytes) return null
  return mediaWords('tooLarge', { megabytes: inMegabytes(mostBytes) })
}

/** Hashes of everything that is in a piece, at school or still here. */
async function hashesIn(parts: readonly Part[]): Promise<string[]> {
  const files = parts.flatMap((part) => Object.values<PartFile>(part.files))
  const hashes = await Promise.all(
    files.map(async ({ mediaId, sentSha256 }) => {
      const file = fileHere(mediaId)
      return sentSha256 || (file && (await hashOf(file).catch(() => null)))
    }),
  )
  return hashes.filter((hash) => hash !== null)
}
