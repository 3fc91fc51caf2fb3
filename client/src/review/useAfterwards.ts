import type { Folder, Piece } from '@nibquill/contract'
import { sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { useDecide, useFileElsewhere, useTakeBack } from './reviewQueries'
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

  const fileInto = async (folder: Filing, seenVersion: number, before: Filing | null) => {
    const { version } = await file.mutateAsync({
      pieceId: piece.id,
      folderId: folder.id,
      seenVersion,
    })
    toast(t('filed', { ...about, folder: folder.name }), {
      standsMs: UNDO_STANDS_MS,
      ...(before ? { undo: () => void fileInto(before, version, null).catch(failed) } : {}),
    })
  }
  const sendBack = async (message: string) => {
    const { version } = await decide.mutateAsync({
      pieceId: piece.id,
      decision: { move: 'send-back', message, seenVersion: piece.version },
    })
    toast(t('sentBack', about), {
      standsMs: UNDO_STANDS_MS,
      undo: () =>
        void takeBack.mutateAsync({ pieceId: piece.id, seenVersion: version }).catch(failed),
    })
  }
  return {
    busy: decide.isPending || file.isPending,
    fileInto: (folder: Filing) => {
      if (folder.id === piece.folder?.id) return
      void fileInto(folder, piece.version, piece.folder).catch(failed)
    },
    sendBack: (message: string) => void sendBack(message).catch(failed),
  }
}
