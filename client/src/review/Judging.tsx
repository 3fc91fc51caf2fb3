import type { Piece } from '@nibquill/contract'
import { coverOf, fitsPiece, MAX_MESSAGE_LENGTH } from '@nibquill/core'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { useFolders } from '../folders'
import { Field } from '../kit/Field'
import { useWidth } from '../kit/layout'
import { isHere, NotYet } from '../kit/NotYet'
import { colours } from '../kit/theme'
import { lookOf } from '../parts/partKinds'
import { PartsViewer } from '../parts/PartsViewer'
import { pieceQuery, usePiece } from '../pieces'
import { DeskHead } from './DeskHead'
import { FolderDialog, KeysDialog, SendBackDialog } from './dialogs'
import { Facts } from './Facts'
import { strings } from './strings'
import { useKeys } from './useKeys'
import { useVerdict } from './useVerdict'
import { VerdictBar } from './VerdictBar'

type Props = {
  pieceId: string
  nextId?: string
  previousId?: string
  onGo: (pieceId: string | undefined) => void
}

/**
 * The judging desk: the work as large as the screen allows, facts beside or below, two decisions
 * fixed where the thumb or keyboard finds them.
 */
export function Judging(props: Props) {
  const piece = usePiece(props.pieceId)
  usePreload(props.nextId)
  if (!isHere(piece)) return <NotYet of={piece} />
  return <JudgingDesk {...props} piece={piece.data} />
}

/** The next piece is there before it is asked for. */
function usePreload(pieceId: string | undefined): void {
  const queries = useQueryClient()
  useEffect(() => {
    if (!pieceId) return
    void queries.fetchQuery(pieceQuery(pieceId)).then(
      ({ parts }) => {
        const cover = coverOf(parts)
        const ahead = cover && lookOf(cover).ahead(cover)
        if (ahead) new window.Image().src = ahead
      },
      () => undefined,
    )
  }, [pieceId, queries])
}

type Open = 'folder' | 'send-back' | 'keys' | null

function JudgingDesk({ piece, nextId, previousId, onGo }: Props & { piece: Piece }) {
  const { wide, height } = useWidth()
  const folders = useFolders().data ?? []
  const [open, setOpen] = useState<Open>(null)
  const close = () => setOpen(null)
  const waiting = piece.state === 'submitted'
  // What was handed in is judged, as it was handed in.
  const version = waiting
    ? piece.versions[0]
    : (piece.versions.find(({ decision }) => decision?.move === 'approve') ?? piece.versions[0])
  const title = version?.title ?? piece.title
  const verdict = useVerdict(piece, title, () => {
    close()
    onGo(nextId ?? previousId)
  })
  const folder = folders.find(({ id }) => id === verdict.folderId) ?? piece.folder
  useKeys(
    {
      a: () => waiting && !verdict.busy && verdict.send('approve'),
      s: () => waiting && setOpen('send-back'),
      f: () => waiting && setOpen('folder'),
      m: () => document.querySelector<HTMLElement>(`[aria-label="${strings.message}"]`)?.focus(),
      j: () => nextId && onGo(nextId),
      k: () => previousId && onGo(previousId),
      '?': () => setOpen('keys'),
    },
    open === null,
  )
  const facts = (
    <Facts piece={piece} version={version}>
      {waiting ? (
        <Field
          label={strings.message}
          value={verdict.message}
          onChangeText={verdict.setMessage}
          maxLength={MAX_MESSAGE_LENGTH}
          lines={2}
        />
      ) : null}
    </Facts>
  )
  const work = <PartsViewer parts={version?.parts ?? piece.parts} title={title} />
  const head = (
    <DeskHead
      {...{ title, nextId, previousId, onGo }}
      goes={piece.goes}
      onKeys={() => setOpen('keys')}
    />
  )
  const bar = (
    <VerdictBar
      piece={piece}
      verdict={verdict}
      folderName={folder?.name ?? ''}
      onSendBack={() => setOpen('send-back')}
      onOtherFolder={() => setOpen('folder')}
    />
  )
  return (
    <View style={{ flex: 1 }}>
      {wide ? (
        <View style={{ flex: 1, flexDirection: 'row' }}>
          <View style={{ flex: 1 }}>
            {head}
            <View style={{ flex: 1, paddingHorizontal: 18, paddingBottom: 14 }}>{work}</View>
            {bar}
          </View>
          <ScrollView style={BESIDE}>{facts}</ScrollView>
        </View>
      ) : (
        <>
          {head}
          <ScrollView>
            <View style={{ height: Math.min(460, height * 0.45), paddingHorizontal: 12 }}>
              {work}
            </View>
            {facts}
          </ScrollView>
          {bar}
        </>
      )}
      <FolderDialog
        visible={open === 'folder'}
        onClose={close}
        folders={folders.filter((other) => fitsPiece(other, piece))}
        chosenId={folder?.id}
        onChoose={verdict.setFolderId}
      />
      <SendBackDialog
        visible={open === 'send-back'}
        onClose={close}
        firstName={piece.pupil.firstName}
        verdict={verdict}
      />
      <KeysDialog visible={open === 'keys'} onClose={close} />
    </View>
  )
}

const BESIDE = {
  flexGrow: 0,
  width: 290,
  borderLeftWidth: 1,
  borderLeftColor: colours.rule,
} as const
