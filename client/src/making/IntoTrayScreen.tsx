import type { Piece } from '@nibquill/contract'
import { coverOf, partsMissing, pendingMove } from '@nibquill/core'
import { Redirect, router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useSession } from '../accounts'
import { chime } from '../device/chime'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Bar, Page, Split, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { useWaiting } from '../outbox/OutboxContext'
import { Sheet } from '../parts/Sheet'
import { PieceTrouble, piecesWords, usePieceWork, WithPiece } from '../pieces'
import { InTray } from './InTray'
import { usePlaceOf, useYoung } from './LastStep'
import { MakeHead } from './MakeHead'
import { PartsStrip } from './PartsStrip'
import { WhichFolder } from './WhichFolder'
import { t } from './words'

export function IntoTrayScreen() {
  return <WithPiece>{(piece) => <TrayStep piece={piece} />}</WithPiece>
}

function TrayStep({ piece }: { piece: Piece }) {
  const waiting = useWaiting(piece.id)
  // Said once it is kept on the tablet, or cannot be and is on its way.
  const goesIn =
    pendingMove(waiting.map(({ intent }) => intent)) === 'hand-in' &&
    waiting.every(({ kept, standing }) => kept || standing !== 'waiting')
  const held = waiting.some(
    ({ intent, standing }) =>
      standing === 'asks' || (intent.kind === 'hand-in' && standing === 'refused'),
  )
  // Approved while the pupil was looking: there is nothing to hand in any more.
  if (piece.state === 'approved') return <Redirect href={`/my-pieces/${piece.id}`} />
  const arrived = piece.state === 'submitted'
  return arrived || (goesIn && !held) ? (
    <InTray piece={piece} cover={coverOf(piece.parts)} arrived={arrived} />
  ) : (
    <IntoTray piece={piece} />
  )
}

/** The last step: look once more, see where it goes, and hand it in. */
function IntoTray({ piece }: { piece: Piece }) {
  const work = usePieceWork(piece.id)
  const place = usePlaceOf('tray', piece.task)
  const young = useYoung()
  const sounds = useSession().data?.person?.sounds ?? false
  const { tablet } = useWidth()
  const [busy, setBusy] = useState(false)
  const empty = piece.parts.length === 0
  const missing = partsMissing(piece.task?.asks ?? [], piece.parts)
  const [asking, setAsking] = useState(false)
  const refused = useWaiting(piece.id).some(({ standing }) => standing === 'refused')
  const handIn = async () => {
    setBusy(true)
    // The suggestion stands in for a name nobody gave.
    await work.handIn().finally(() => setBusy(false))
    if (sounds) chime()
  }
  return (
    <View style={{ flex: 1 }}>
      <MakeHead title={t('stepTitles.tray')} step={place} />
      <Page
        foot={
          <BigButton
            label={piece.folder || empty ? t('handIn') : t('noFolder')}
            symbol="tray-in"
            onPress={() => (missing.length > 0 ? setAsking(true) : void handIn())}
            busy={busy}
            disabled={empty || piece.folder === null}
          />
        }
      >
        {empty ? (
          <Notice
            tone="again"
            symbol="alert"
            action={
              <BigButton
                small
                tone="quiet"
                label={piecesWords('addPhoto')}
                onPress={() => router.push(`/my-pieces/${piece.id}/photo`)}
              />
            }
          >
            {t('noParts')}
          </Notice>
        ) : null}
        <PieceTrouble pieceId={piece.id} />
        {/* Pictures stand large, one under the other. */}
        <Split beside={tablet && !young} gap="far">
          <View style={{ alignItems: 'center' }}>
            <Sheet
              piece={{ cover: coverOf(piece.parts), state: 'draft', title: piece.title }}
              width={tablet ? (young ? 420 : 340) : 300}
            />
          </View>
          <Stack gap="clear" style={tablet && !young ? { flex: 1 } : {}}>
            <WhatISaid piece={piece} young={young} />
            <WhichFolder piece={piece} young={young} />
          </Stack>
        </Split>
        {piece.parts.length > 1 || refused ? (
          <PartsStrip pieceId={piece.id} parts={piece.parts} />
        ) : null}
      </Page>
      <WithoutIt
        visible={asking}
        pieceId={piece.id}
        missing={missing}
        onWithout={() => void handIn()}
        onClose={() => setAsking(false)}
      />
    </View>
  )
}

const MADE_AT = {
  photo: 'photo',
  drawing: 'draw',
  voice: 'say',
  writing: 'write',
  film: 'film',
} as const

/** Asked before a piece goes in without what its task asks for; the way to make it lies beside. */
function WithoutIt({
  visible,
  pieceId,
  missing,
  onWithout,
  onClose,
}: {
  visible: boolean
  pieceId: string
  missing: ReturnType<typeof partsMissing>
  onWithout: () => void
  onClose: () => void
}) {
  const [first] = missing
  const add = () => {
    onClose()
    if (first) router.push(`/my-pieces/${pieceId}/${MADE_AT[first.kind]}`)
  }
  return (
    <Ask
      visible={visible && first !== undefined}
      title={t('without')}
      yes={t('addFirst')}
      no={t('handInWithout')}
      onYes={add}
      onNo={() => {
        onClose()
        onWithout()
      }}
      onLeave={onClose}
    >
      {missing.map((part) => t('askedFor', part)).join(' ')}
    </Ask>
  )
}

/** Its name and what I think of it, each a tap away from being changed. */
function WhatISaid({ piece, young }: { piece: Piece; young: boolean }) {
  const title = piece.title || piece.suggestedTitle
  const change = (step: 'what' | 'thoughts') => router.push(`/my-pieces/${piece.id}/${step}`)
  return (
    <Stack gap="near">
      <Bar gap="none">
        <Text variant="titleLarge" style={{ flex: 1 }}>
          {title}
        </Text>
        <Listen text={[title, piece.reflection].filter(Boolean).join('. ')} />
      </Bar>
      {piece.reflection ? <Text variant="bodyLarge">{piece.reflection}</Text> : null}
      {young ? null : (
        <Bar wrap align="stretch">
          <BigButton
            small
            tone="quiet"
            symbol="pencil"
            label={t('changeName')}
            onPress={() => change('what')}
          />
          <BigButton
            small
            tone="quiet"
            symbol="message"
            label={piece.reflection ? t('changeThoughts') : t('sayThoughts')}
            onPress={() => change('thoughts')}
          />
        </Bar>
      )}
    </Stack>
  )
}
