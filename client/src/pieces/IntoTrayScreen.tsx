import type { Piece } from '@nibquill/contract'
import { Redirect, router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { FolderDrawing, TrayDrawing } from '../kit/FolderDrawing'
import { Heading, Page } from '../kit/layout'
import { Listen, Notice, ProblemNotice } from '../kit/Notice'
import { Sheet } from '../kit/Sheet'
import { colours } from '../kit/theme'
import { MakeHead } from './MakeHead'
import { PartsStrip } from '../parts/PartsStrip'
import { useMovePiece } from './piecesQueries'
import { strings } from './strings'
import { useSendings } from './uploads'
import { WithPiece } from './WithPiece'

export function IntoTrayScreen() {
  return <WithPiece>{(piece) => <LastStep piece={piece} />}</WithPiece>
}

function LastStep({ piece }: { piece: Piece }) {
  // Approved while the pupil was looking: there is nothing to hand in any more.
  if (piece.state === 'approved') return <Redirect href={`/my-pieces/${piece.id}`} />
  return piece.state === 'submitted' ? <InTray piece={piece} /> : <IntoTray piece={piece} />
}

/** Third of the last three steps: look once more, then hand it in. */
function IntoTray({ piece }: { piece: Piece }) {
  const move = useMovePiece(piece.id)
  const sendings = useSendings(piece.id)
  const waiting = sendings.some(({ state }) => state !== 'refused')
  const missing = piece.parts.length === 0 ? strings.noParts : piece.folder === null ? strings.noFolder : null
  const handIn = () => move.mutate({ move: 'hand-in', seenVersion: piece.version })
  return (
    <View style={{ flex: 1 }}>
      <MakeHead title={strings.steps[2]!} step={3} />
      <Page
        foot={
          <BigButton
            label={strings.handIn}
            symbol="tray-in"
            onPress={handIn}
            busy={move.isPending}
            disabled={waiting || missing !== null}
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
        {waiting ? (
          <Notice tone="attention" symbol="clock">
            {strings.stillComing}
          </Notice>
        ) : missing ? (
          <Notice
            tone="again"
            symbol="alert"
            action={
              <BigButton
                small
                tone="quiet"
                label={strings.addPhoto}
                onPress={() => router.push(`/my-pieces/${piece.id}/photo`)}
              />
            }
          >
            {missing}
          </Notice>
        ) : null}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 20, alignItems: 'center' }}>
          <Sheet piece={{ cover: piece.parts[0] ?? null, state: 'draft', title: piece.title }} width={220} />
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
        {move.isError ? <ProblemNotice error={move.error} /> : null}
      </Page>
    </View>
  )
}

function InTray({ piece }: { piece: Piece }) {
  const move = useMovePiece(piece.id)
  const [taken, setTaken] = useState(false)
  const takeOut = () => {
    setTaken(true)
    move.mutate({ move: 'withdraw', seenVersion: piece.version }, { onSuccess: () => router.replace(`/my-pieces/${piece.id}`) })
  }
  return (
    <Page
      foot={
        <>
          <BigButton label={strings.toDesk} symbol="desk" onPress={() => router.replace('/desk')} />
          <BigButton label={strings.takeOut} symbol="tray-out" tone="quiet" onPress={takeOut} busy={taken && move.isPending} />
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
