import type { MadePage, Piece } from '@nibquill/contract'
import { acceptOf } from '@nibquill/core'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { pickFiles } from '../device/pickFiles'
import { ProblemError, sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { isPaper, pagesOf, sheetWithPage } from './pages'
import { pictureToLay } from './pictureToLay'
import { Tool } from './Tool'
import type { Arranging } from './useArranging'
import { t } from './words'

const ACCEPT = `${acceptOf('picture')},image/svg+xml,${acceptOf('paper')},.pdf`

/**
 * Pictures from the camera or from files, several at once, laid on the sheet; pages of a paper, each
 * on a sheet of its own.
 */
export function LayPicture({
  send,
  arranging,
}: {
  /** Sends it, or has it sent, before it is laid on. */
  send: (mediaId: string, file: File) => Promise<void>
  arranging: Arranging
}) {
  const [busy, setBusy] = useState('')
  const pick = async () => {
    const picked = await pickFiles(ACCEPT, { several: true })
    // One after the other: a tablet holds one large picture at a time.
    for (const file of picked) {
      setBusy(t('picture'))
      if (isPaper(file)) await layPages(pagesOf(file), arranging, setBusy)
      else await layPicture(file)
    }
    setBusy('')
  }
  const layPicture = async (file: File) => {
    const made = await pictureToLay(file)
    if (!made) return toast(t('notAPicture', { name: file.name }))
    const mediaId = newId()
    try {
      await send(mediaId, made.file)
      arranging.addPicture(mediaId, made)
    } catch (error) {
      toast(sentenceOf(error))
    }
  }
  return (
    <Tool
      symbol="pictures"
      label={busy || t('picture')}
      disabled={busy !== ''}
      onPress={() => void pick()}
    />
  )
}

/**
 * Each page of a paper on a sheet of its own, as they come; the first lies on top then.
 * @param say - How far it is.
 */
export async function layPages(
  pages: AsyncGenerator<MadePage>,
  arranging: Arranging,
  say: (words: string) => void,
): Promise<void> {
  say(t('pagesComing'))
  let laid = 0
  try {
    for await (const page of pages) {
      arranging.addSheet(sheetWithPage(page))
      laid++
      if (arranging.isFull() && laid < page.pages)
        return toast(t('pagesFirst', { n: laid, of: page.pages }))
      say(t('pageOf', { n: laid, of: page.pages }))
    }
  } catch (error) {
    toast(error instanceof ProblemError ? sentenceOf(error) : t('pagesNeedNetwork'))
  }
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
