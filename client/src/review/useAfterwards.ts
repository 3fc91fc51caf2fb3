import type { Folder, Piece } from '@nibquill/contract'
import { sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { sendVoice } from '../media/sendVoice'
import { useDecide, useFileElsewhere, useTakeBack } from './reviewQueries'
import type { Unsent } from './unsentWords'
import { UNDO_STANDS_MS } from './useVerdict'
import { t } from './words'

type Filing = Pick<Folder, 'id' | 'name'>

/**
 * What a teacher can still do with a piece that is approved: file it elsewhere, ask for another go.
 * Both can be undone for a while, and one stays where one is.
 */
export function useAfterwards(piece: Piece, title: string) {
  const decide = useDecide()
  const takeBack = useTakeBack()
  const file = useFileElsewhere()
  const about = { name: piece.pupil.firstName, title }
  const failed = (error: unknown) => toast(sentenceOf(error))

  const fileInto = async (
    folder: Filing & { because: string },
    seenVersion: number,
    before: Filing | null,
  ) => {
    const { version } = await file.mutateAsync({
      pieceId: piece.id,
      folderId: folder.id,
      because: folder.because,
      seenVersion,
    })
    toast(t('filed', { ...about, folder: folder.name }), {
      standsMs: UNDO_STANDS_MS,
      ...(before
        ? { undo: () => void fileInto({ ...before, because: '' }, version, null).catch(failed) }
        : {}),
    })
  }
  const sendBack = async ({ message, said }: Unsent) => {
    const spoken = said ? { voiceId: await sendVoice(said.file) } : {}
    const { version } = await decide.mutateAsync({
      pieceId: piece.id,
      decision: {
        ...{ move: 'send-back', message: message.trim(), seenVersion: piece.version },
        ...spoken,
      },
    })
    toast(t('sentBack', about), {
      standsMs: UNDO_STANDS_MS,
      undo: () =>
        void takeBack.mutateAsync({ pieceId: piece.id, seenVersion: version }).catch(failed),
    })
  }
  return {
    busy: decide.isPending || file.isPending,
    fileInto: (folder: Filing & { because: string }) => {
      if (folder.id === piece.folder?.id) return
      void fileInto(folder, piece.version, piece.folder).catch(failed)
    },
    /** @param onFailed - What was said is wanted back. */
    sendBack: (words: Unsent, onFailed: () => void) =>
      void sendBack(words).catch((error: unknown) => {
        onFailed()
        failed(error)
      }),
  }
}
