import type { PhotoPart, Piece } from '@nibquill/contract'
import { AS_IT_WAS, type Tidying } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { v7 as newId } from 'uuid'
import { useSession } from '../accounts/session'
import { problemFrom } from '../api/problems'
import { BigButton } from '../kit/BigButton'
import { Loading, ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { mediaAddress } from '../media/mediaAddress'
import { WithPiece } from '../pieces/WithPiece'
import { sendTidied, uploader } from '../pieces/uploads'
import { strings as tidyWords } from '../tidy/strings'
import { TidyScreen } from '../tidy/TidyScreen'
import { noteTidied } from './followTidied'
import { nameOf } from './partKinds'
import { useAddPart, useSwapParts } from './partsQueries'
import { strings } from './strings'

/** Tidies one photo of a piece, whether it is at school or still on this tablet. */
export function TidyPartScreen() {
  const { partId } = useLocalSearchParams<{ partId: string }>()
  return <WithPiece>{(piece) => <TidyPart piece={piece} partId={partId} />}</WithPiece>
}

function TidyPart({ piece, partId }: { piece: Piece; partId: string }) {
  const session = useSession()
  // Both as they were when tidying began: what arrives meanwhile must not take the photo off the
  // table.
  const [part] = useState<PhotoPart | null>(() => photoOf(piece, partId))
  const [before] = useState(
    () => uploader.getSnapshot().find((sending) => sending.partId === partId) ?? null,
  )
  // Tidied a moment ago and still on its way: what it was tidied from may have arrived.
  const [source] = useState(() => part ?? photoOf(piece, before?.instead?.partId))
  const original = useOriginal(source, partId)
  const add = useAddPart(piece.id)
  const swap = useSwapParts(piece.id)
  const leave = () =>
    router.canGoBack() ? router.back() : router.replace(`/my-pieces/${piece.id}`)
  const owner = session.data?.person?.id
  if (original.failed) {
    return (
      <View style={{ padding: 20, gap: 14 }}>
        <ProblemNotice error={original.failed} onRetry={original.again} />
        <BigButton symbol="back" label={strings.back} onPress={leave} />
      </View>
    )
  }
  if (!original.file || !owner) return <Loading />
  const file = original.file

  const keep = async (made: Blob | null, tidying: Tidying) => {
    const undo = await (made ? keepTidied(made, tidying) : keepAsItWas())
    leave()
    if (undo) toast(strings.tidied, undo, strings.undo)
  }
  const keepTidied = async (made: Blob, tidying: Tidying) => {
    const name = `${nameOf({ kind: 'photo', name: part?.name ?? '' }, 0)}.jpg`
    const tidied = new File([made], name, { type: 'image/jpeg' })
    // What is still on its way itself may be the tidying of another: the recipe starts from that
    // one's photo.
    const fresh = await sendTidied(owner, piece.id, tidied, { partId, tidying })
    noteTidied(partId, fresh)
    return () => {
      const onTheWay = uploader.getSnapshot().some((sending) => sending.partId === fresh)
      if (onTheWay) uploader.forget(fresh)
      else swap.mutate({ out: fresh, back: partId })
    }
  }
  const keepAsItWas = async () => {
    if (!part?.tidied) return null
    const fresh = newId()
    noteTidied(partId, fresh)
    await add.mutateAsync({
      partId: fresh,
      kind: 'photo',
      files: { picture: part.tidied.originalMediaId },
      name: '',
      instead: { partId, tidying: null },
    })
    return () => swap.mutate({ out: fresh, back: partId })
  }
  const recipe = part?.tidied?.tidying ?? before?.instead?.tidying ?? AS_IT_WAS
  return <TidyScreen original={file} before={recipe} onKeep={keep} onLeave={leave} />
}

/** A photo that is at school. */
const photoOf = (piece: Piece, partId: string | undefined): PhotoPart | null =>
  piece.parts.find((part): part is PhotoPart => part.kind === 'photo' && part.id === partId) ?? null

type Original = { file: Blob | null; failed: Error | null; again: () => void }

/** The photo as the camera saw it: from this tablet while it is on its way, else from school. */
function useOriginal(part: PhotoPart | null, partId: string): Original {
  const [round, setRound] = useState(0)
  const [found, setFound] = useState<Pick<Original, 'file' | 'failed'>>({
    file: null,
    failed: null,
  })
  useEffect(() => {
    const here = originalHere(partId)
    if (here) return setFound({ file: here, failed: null })
    if (!part) return setFound({ file: null, failed: new Error(tidyWords.fetching) })
    const gone = new AbortController()
    const mediaId = part.tidied?.originalMediaId ?? part.files.picture.mediaId
    fetch(mediaAddress({ mediaId, state: 'ready' }, 'full'), { signal: gone.signal })
      .then(async (response) => {
        if (!response.ok) throw await problemFrom(response)
        setFound({ file: await response.blob(), failed: null })
      })
      .catch((failed: Error) => gone.signal.aborted || setFound({ file: null, failed }))
    return () => gone.abort()
  }, [part, partId, round])
  return { ...found, again: () => setRound(round + 1) }
}

/**
 * Walks back from a tidied photo on its way to the one it was tidied from, as long as that is on
 * this tablet too.
 */
function originalHere(partId: string): Blob | null {
  const sending = uploader.getSnapshot().find((one) => one.partId === partId)
  if (!sending) return null
  return sending.instead ? originalHere(sending.instead.partId) : uploader.fileOf(partId)
}
