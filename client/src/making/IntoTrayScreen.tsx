import type { Piece } from '@nibquill/contract'
import { coverOf, pendingMove } from '@nibquill/core'
import { Redirect, router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { FolderDrawing, TrayDrawing } from '../kit/FolderDrawing'
import { Heading, Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Sheet } from '../parts/Sheet'
import { colours } from '../kit/theme'
import { MakeHead } from './MakeHead'
import {
  OutboxLine,
  piecesStrings as strings,
  PieceTrouble,
  usePieceWork,
  WithPiece,
} from '../pieces'
import { PartsStrip } from './PartsStrip'
import { useWaiting } from '../outbox/OutboxContext'

export function IntoTrayScreen() {
  return <WithPiece>{(piece) => <LastStep piece={piece} />}</WithPiece>
}

function LastStep({ piece }: { piece: Piece }) {
  const work = usePieceWork(piece.id)
  const waiting = useWaiting(piece.id)
  // Said once it is kept on the tablet, or cannot be and is on its way.
  const goesIn =
    pendingMove(waiting.map(({ intent }) => intent)) === 'hand-in' &&
    waiting.every(({ kept, standing }) => kept || standing !== 'waiting')
  const held = waiting.some(
    ({ intent, standing }) =>
      standing === 'asks' || (intent.kind === 'hand-in' && standing === 'refused'),
  )
  const takeOut = async () => {
    await work.withdraw()
    router.replace(`/my-pieces/${piece.id}`)
  }
  // Approved while the pupil was looking: there is nothing to hand in any more.
  if (piece.state === 'approved') return <Redirect href={`/my-pieces/${piece.id}`} />
  if (piece.state === 'submitted') return <InTray piece={piece} onTakeOut={() => void takeOut()} />
  return goesIn && !held ? (
    <GoesIn piece={piece} onKeepOut={() => void work.withdraw()} />
  ) : (
    <IntoTray piece={piece} />
  )
}

/** Third of the last three steps: look once more, then hand it in. */
function IntoTray({ piece }: { piece: Piece }) {
  const work = usePieceWork(piece.id)
  const [busy, setBusy] = useState(false)
  const empty = piece.parts.length === 0
  const missing = empty ? strings.noParts : piece.folder === null ? strings.noFolder : null
  const handIn = async () => {
    setBusy(true)
    // The suggestion stands in for a name nobody gave.
    await work.handIn().finally(() => setBusy(false))
  }
  return (
    <View style={{ flex: 1 }}>
      <MakeHead title={strings.steps[2]!} step={3} />
      <Page
        foot={
          <BigButton
            label={strings.handIn}
            symbol="tray-in"
            onPress={() => void handIn()}
            busy={busy}
            disabled={missing !== null}
          />
        }
      >
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          <View style={{ flex: 1 }}>
            <Heading>{strings.trayTitle}</Heading>
          </View>
          <Listen text={strings.trayHelp} />
        </View>
        <Text variant="bodyLarge">{strings.trayHelp}</Text>
        {missing ? (
          <Notice
            tone="again"
            symbol="alert"
            action={
              <BigButton
                small
                tone="quiet"
                label={empty ? strings.addPhoto : strings.steps[1]!}
                onPress={() => router.push(`/my-pieces/${piece.id}/${empty ? 'photo' : 'folder'}`)}
              />
            }
          >
            {missing}
          </Notice>
        ) : null}
        <PieceTrouble pieceId={piece.id} />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 20, alignItems: 'center' }}>
          <Sheet
            piece={{ cover: coverOf(piece.parts), state: 'draft', title: piece.title }}
            width={220}
          />
          <View style={{ flex: 1, minWidth: 180, gap: 8 }}>
            <Text variant="titleLarge">{piece.title || piece.suggestedTitle}</Text>
            {piece.reflection ? <Text variant="bodyLarge">{piece.reflection}</Text> : null}
            {piece.folder ? (
              <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
                <FolderDrawing folder={piece.folder} width={64} />
                <Text variant="titleSmall">{piece.folder.name}</Text>
              </View>
            ) : null}
          </View>
        </View>
        <PartsStrip pieceId={piece.id} parts={piece.parts} />
      </Page>
    </View>
  )
}

/** Handed in by the pupil, not yet by the tablet: honest about it, and to be taken back. */
function GoesIn({ piece, onKeepOut }: { piece: Piece; onKeepOut: () => void }) {
  return (
    <Page
      foot={
        <>
          <BigButton label={strings.toDesk} symbol="desk" onPress={() => router.replace('/desk')} />
          <BigButton label={strings.keepOut} symbol="tray-out" tone="quiet" onPress={onKeepOut} />
        </>
      }
    >
      <View role="status" style={{ alignItems: 'center', gap: 18, paddingTop: 40 }}>
        <TrayDrawing count={1} width={190} />
        <Heading level={1}>{strings.goesIn}</Heading>
        <Text variant="bodyLarge" style={{ textAlign: 'center', color: colours.inkSoft }}>
          {strings.goesInHelp}
        </Text>
        <Listen text={`${strings.goesIn}. ${strings.goesInHelp}`} />
        <OutboxLine />
        <Text variant="titleMedium">{piece.title || piece.suggestedTitle}</Text>
      </View>
    </Page>
  )
}

function InTray({ piece, onTakeOut }: { piece: Piece; onTakeOut: () => void }) {
  return (
    <Page
      foot={
        <>
          <BigButton label={strings.toDesk} symbol="desk" onPress={() => router.replace('/desk')} />
          <BigButton label={strings.takeOut} symbol="tray-out" tone="quiet" onPress={onTakeOut} />
        </>
      }
    >
      <View role="status" style={{ alignItems: 'center', gap: 18, paddingTop: 40 }}>
        <TrayDrawing count={3} width={190} />
        <Heading level={1}>{strings.handedIn}</Heading>
        <Text variant="bodyLarge" style={{ textAlign: 'center', color: colours.inkSoft }}>
          {strings.handedInHelp}
        </Text>
        <Listen text={`${strings.handedIn}. ${strings.handedInHelp}`} />
        <Sheet piece={piece} width={220} />
        <Text variant="titleMedium">{piece.title}</Text>
      </View>
    </Page>
  )
}
