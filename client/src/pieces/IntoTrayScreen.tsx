import type { Piece } from '@nibquill/contract'
import { Redirect, router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { FolderDrawing, TrayDrawing } from '../kit/FolderDrawing'
import { Heading, Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice, ProblemNotice } from '../kit/Notice'
import { Sheet } from '../parts/Sheet'
import { colours } from '../kit/theme'
import { DraftTrouble } from './DraftTrouble'
import { MakeHead } from './MakeHead'
import { OutboxLine } from './OutboxLine'
import { PartsStrip } from '../parts/PartsStrip'
import { useMovePiece } from './piecesQueries'
import { strings } from './strings'
import { drafts, useDrafts, useSendings } from './uploads'
import { useWriting } from './useDraft'
import { WithPiece } from './WithPiece'

export function IntoTrayScreen() {
  return <WithPiece>{(piece) => <LastStep piece={piece} />}</WithPiece>
}

function LastStep({ piece }: { piece: Piece }) {
  const queued = useDrafts().get(piece.id)
  // Here, since the school may tell that it is out, and what is shown with it change, before it
  // answers.
  const move = useMovePiece(piece.id)
  const takeOut = () =>
    move.mutate(
      { move: 'withdraw', seenVersion: piece.version },
      { onSuccess: () => router.replace(`/my-pieces/${piece.id}`) },
    )
  // Approved while the pupil was looking: there is nothing to hand in any more.
  if (piece.state === 'approved') return <Redirect href={`/my-pieces/${piece.id}`} />
  if (piece.state === 'submitted') return <InTray piece={piece} move={move} onTakeOut={takeOut} />
  return queued?.handIn && queued.state !== 'refused' && queued.state !== 'asks' ? (
    <GoesIn piece={piece} />
  ) : (
    <IntoTray piece={piece} />
  )
}

/** Third of the last three steps: look once more, then hand it in. */
function IntoTray({ piece }: { piece: Piece }) {
  const { draft, write } = useWriting(piece)
  const sendings = useSendings(piece.id)
  const [busy, setBusy] = useState(false)
  const empty = piece.parts.length === 0 && sendings.every(({ state }) => state === 'refused')
  const missing = empty ? strings.noParts : piece.folder === null ? strings.noFolder : null
  const handIn = async () => {
    setBusy(true)
    // The suggestion stands in for a name nobody gave.
    await write({}, { handIn: true }).finally(() => setBusy(false))
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
        <DraftTrouble draft={draft} />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 20, alignItems: 'center' }}>
          <Sheet
            piece={{ cover: piece.parts[0] ?? null, state: 'draft', title: piece.title }}
            width={220}
            preview={sendings[0]?.preview}
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
function GoesIn({ piece }: { piece: Piece }) {
  return (
    <Page
      foot={
        <>
          <BigButton label={strings.toDesk} symbol="desk" onPress={() => router.replace('/desk')} />
          <BigButton
            label={strings.keepOut}
            symbol="tray-out"
            tone="quiet"
            onPress={() => void drafts.keepOut(piece.id)}
          />
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

type InTrayProps = { piece: Piece; move: ReturnType<typeof useMovePiece>; onTakeOut: () => void }

function InTray({ piece, move, onTakeOut }: InTrayProps) {
  return (
    <Page
      foot={
        <>
          <BigButton label={strings.toDesk} symbol="desk" onPress={() => router.replace('/desk')} />
          <BigButton
            label={strings.takeOut}
            symbol="tray-out"
            tone="quiet"
            onPress={onTakeOut}
            busy={move.isPending}
          />
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
        {move.isError ? <ProblemNotice error={move.error} /> : null}
      </View>
    </Page>
  )
}
