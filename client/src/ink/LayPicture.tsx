import type { Piece } from '@nibquill/contract'
import { acceptOf } from '@nibquill/core'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { pickFiles } from '../device/pickFiles'
import { sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { pictureToLay } from './pictures'
import { Tool } from './Tool'
import type { Arranging } from './useArranging'
import { t } from './words'

const ACCEPT = `${acceptOf('picture')},image/svg+xml`

/** Pictures from the camera or from files, several at once, laid on the sheet. */
export function LayPicture({
  send,
  arranging,
}: {
  /** Sends it, or has it sent, before it is laid on. */
  send: (mediaId: string, file: File) => Promise<void>
  arranging: Arranging
}) {
  const [busy, setBusy] = useState(false)
  const pick = async () => {
    const picked = await pickFiles(ACCEPT, { several: true })
    setBusy(true)
    // One after the other: a tablet holds one large picture at a time.
    for (const file of picked) {
      const made = await pictureToLay(file)
      if (!made) {
        toast(t('notAPicture', { name: file.name }))
        continue
      }
      const mediaId = newId()
      try {
        await send(mediaId, made.file)
        arranging.addPicture(mediaId, made)
      } catch (error) {
        toast(sentenceOf(error))
      }
    }
    setBusy(false)
  }
  return <Tool symbol="pictures" label={t('picture')} disabled={busy} onPress={() => void pick()} />
}

/** Photos that hang on the same piece, to be laid on as well. */
export function LayPhotos({ piece, arranging }: { piece: Piece | null; arranging: Arranging }) {
  const photos = piece?.parts.flatMap((part) => (part.kind === 'photo' ? [part] : [])) ?? []
  return photos.map(({ id, files, width, height }, i) => (
    <Tool
      key={id}
      symbol="camera"
      label={t('photoHere', { number: i + 1 })}
      onPress={() =>
        arranging.addPicture(files.picture.mediaId, width > 0 ? { width, height } : FOUR_BY_THREE)
      }
    />
  ))
}
/** What cameras make, where the school has not said yet. */
const FOUR_BY_THREE = { width: 4, height: 3 }
