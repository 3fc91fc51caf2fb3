import type { PhotoPart, Piece } from '@nibquill/contract'
import { AS_IT_WAS, type Tidying } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useState } from 'react'
import { v7 as newId } from 'uuid'
import { problemFrom } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { Loading, ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { fileHere } from '../media/filesHere'
import { mediaAddress } from '../media/mediaAddress'
import { noteTakenOut, usePieceWork, WithPiece } from '../pieces'
import { TidyScreen } from '../tidy'
import { noteTidied } from '../parts/followTidied'
import { nameOf } from '../parts/partKinds'
import { t } from './words'
import { Stack } from '../kit/layout'
import { space } from '../kit/theme'

/** Tidies one photo of a piece, whether it is at school or still on this tablet. */
export function TidyPartScreen() {
  const { partId } = useLocalSearchParams<{ partId: string }>()
  return <WithPiece>{(piece) => <TidyPart piece={piece} partId={partId} />}</WithPiece>
}

function TidyPart({ piece, partId }: { piece: Piece; partId: string }) {
  const work = usePieceWork(piece.id)
  // As it was when tidying began: what arrives meanwhile must not take the photo off the table.
  const [part] = useState<PhotoPart | null>(() => photoOf(piece, partId))
  const original = useOriginal(part)
  const leave = () =>
    router.canGoBack() ? router.back() : router.replace(`/my-pieces/${piece.id}`)
  if (original.failed) {
    return (
      <Stack style={{ padding: space.far }}>
        <ProblemNotice error={original.failed} onRetry={original.again} />
        <BigButton symbol="back" label={t('back')} onPress={leave} />
      </Stack>
    )
  }
  if (!original.file || !part) return <Loading />
  const file = original.file

  const keep = async (made: Blob | null, tidying: Tidying) => {
    const undo = await (made ? keepTidied(made, tidying) : keepAsItWas())
    leave()
    if (undo) toast(t('tidied'), { undo })
  }
  const follow = (fresh: string) => {
    noteTidied(partId, fresh)
    return () => {
      // Back first: whatever happens in between, the photo is there.
      noteTakenOut(part)
      void work.putBack(partId).then(() => work.takeOut({ ...part, id: fresh }))
    }
  }
  const keepTidied = async (made: Blob, tidying: Tidying) => {
    const name = `${nameOf({ kind: 'photo', name: part.name }, 0)}.jpg`
    const tidied = new File([made], name, { type: 'image/jpeg' })
    const instead = { partId, tidying }
    return follow(
      await work.replacePhoto({ kind: 'photo', name: '', mediaId: newId(), instead }, tidied),
    )
  }
  const keepAsItWas = async () => {
    if (!part.tidied) return null
    const mediaId = part.tidied.originalMediaId
    const instead = { partId, tidying: null }
    return follow(await work.replacePhoto({ kind: 'photo', name: '', mediaId, instead }, null))
  }
  const recipe = part.tidied?.tidying ?? AS_IT_WAS
  return <TidyScreen original={file} before={recipe} onKeep={keep} onLeave={leave} />
}

const photoOf = (piece: Piece, partId: string | undefined): PhotoPart | null =>
  piece.parts.find((part): part is PhotoPart => part.kind === 'photo' && part.id === partId) ?? null

type Original = { file: Blob | null; failed: Error | null; again: () => void }

/** The photo as the camera saw it: from this tablet while it is on its way, else from school. */
function useOriginal(part: PhotoPart | null): Original {
  const [round, setRound] = useState(0)
  const [found, setFound] = useState<Pick<Original, 'file' | 'failed'>>({
    file: null,
    failed: null,
  })
  useEffect(() => {
    if (!part) return setFound({ file: null, failed: new Error(t('fetching')) })
    const mediaId = part.tidied?.originalMediaId ?? part.files.picture.mediaId
    const here = fileHere(mediaId)
    if (here) return setFound({ file: here, failed: null })
    const gone = new AbortController()
    fetch(mediaAddress({ mediaId, state: 'ready' }, 'full'), { signal: gone.signal })
      .then(async (response) => {
        if (!response.ok) throw await problemFrom(response)
        setFound({ file: await response.blob(), failed: null })
      })
      .catch((failed: Error) => gone.signal.aborted || setFound({ file: null, failed }))
    return () => gone.abort()
  }, [part, round])
  return { ...found, again: () => setRound(round + 1) }
}
