import type { Folder, Piece } from '@nibquill/contract'
import { fitsPiece } from '@nibquill/core'
import { FolderDialog, KeysDialog, SecondLookDialog, SendBackDialog } from './dialogs'
import { useAskLook, useSecondLookOf } from './SecondLookBox'
import { useAfterwards } from './useAfterwards'
import type { Verdict } from './useVerdict'
import { t } from './words'

export type Open = 'folder' | 'send-back' | 'second-look' | 'keys' | null

/** What is laid over the judging desk. */
export function DeskDialogs({
  open,
  piece,
  title,
  verdict,
  folder,
  folders,
  onClose,
}: {
  open: Open
  piece: Piece
  title: string
  verdict: Verdict
  folder: { id: string } | null
  folders: readonly Folder[]
  onClose: () => void
}) {
  const afterwards = useAfterwards(piece, title)
  const look = useSecondLookOf(piece.id)
  const askLook = useAskLook(piece)
  const approved = piece.state === 'approved'
  return (
    <>
      <FolderDialog
        visible={open === 'folder'}
        onClose={onClose}
        folders={folders.filter((other) => fitsPiece(other, piece))}
        chosenId={folder?.id}
        firstName={piece.pupil.firstName}
        onChoose={({ id, name }, because) =>
          approved
            ? afterwards.fileInto({ id, name, because })
            : verdict.change({ folderId: id, because })
        }
      />
      <SendBackDialog
        visible={open === 'send-back'}
        onClose={onClose}
        firstName={piece.pupil.firstName}
        help={approved ? t('approvedStays') : t('nextStepHelp')}
        words={verdict}
        onChange={verdict.change}
        onSend={() => {
          if (!approved) return verdict.send('send-back')
          onClose()
          const { message, said } = verdict
          afterwards.sendBack(verdict, () => verdict.change({ message, said }))
          verdict.change({ message: '', said: null })
        }}
      />
      {open === 'second-look' ? (
        <SecondLookDialog
          visible
          onClose={onClose}
          firstName={piece.pupil.firstName}
          before={look?.reason ?? ''}
          onKeep={askLook}
        />
      ) : null}
      <KeysDialog visible={open === 'keys'} onClose={onClose} />
    </>
  )
}
