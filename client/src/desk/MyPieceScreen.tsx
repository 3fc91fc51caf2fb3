import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Heading, Page, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice, ProblemNotice } from '../kit/Notice'
import { PartsViewer } from '../parts/PartsViewer'
import { Press } from '../kit/Press'
import { strings as kitWords } from '../kit/strings'
import { Symbol } from '../kit/Symbol'
import { colours, stateColours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { PickBox } from '../portfolio'
import { PartsStrip } from '../making'
import {
  EarlierVersions,
  piecesStrings as strings,
  PieceTrouble,
  useOneMoreGo,
  usePieceWork,
  WithPiece,
} from '../pieces'

export function MyPieceScreen() {
  return <WithPiece>{(piece) => <MyPiece piece={piece} />}</WithPiece>
}

/** One piece of mine: what it looks like, what my teacher said, and the one thing to do next. */
function MyPiece({ piece }: { piece: Piece }) {
  const { height } = useWidth()
  const decision = piece.versions.find((version) => version.decision)?.decision
  const closed = piece.classPiece?.closed === true && piece.state !== 'returned'
  const open = (piece.state === 'draft' || piece.state === 'returned') && !closed
  const look = stateColours[piece.state]
  const title = piece.title || piece.task?.title || strings.untitled
  return (
    <Page foot={closed || !piece.mayChange ? undefined : <NextStep piece={piece} />}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Press
          label={kitWords.back}
          onPress={() => (router.canGoBack() ? router.back() : router.replace('/desk'))}
          style={{ width: targets.pupil, height: targets.pupil, justifyContent: 'center' }}
        >
          <Symbol name="back" size={30} />
        </Press>
        <View style={{ flex: 1 }}>
          <Heading level={1}>{title}</Heading>
          <Text variant="labelMedium" style={{ color: look.text }}>
            {kitWords.states[piece.state]}
            {piece.folder ? ` · ${piece.folder.name}` : ''}
            {piece.goes > 1 ? ` · ${kitWords.goes(piece.goes)}` : ''}
          </Text>
        </View>
      </View>
      {closed ? (
        <Notice tone="attention" symbol="lock">
          {strings.closedSays}
        </Notice>
      ) : null}
      {piece.classPiece?.instructions && !closed ? (
        <Notice tone="news" symbol="layers">
          {piece.classPiece.instructions}
        </Notice>
      ) : null}
      {decision?.message ? (
        <Notice
          tone={decision.move === 'approve' ? 'good' : 'again'}
          symbol="message"
          action={<Listen text={decision.message} />}
        >
          <View>
            <Text variant="labelMedium">{strings.teacherSays(decision.decidedBy)}</Text>
            <Text variant="bodyLarge">{decision.message}</Text>
          </View>
        </Notice>
      ) : null}
      {piece.parts.length > 0 ? (
        <View style={{ height: Math.max(300, Math.min(560, height * 0.5)) }}>
          <PartsViewer parts={piece.parts} title={title} />
        </View>
      ) : null}
      <PieceTrouble pieceId={piece.id} />
      {open ? <PartsStrip pieceId={piece.id} parts={piece.parts} /> : null}
      {piece.reflection ? (
        <View style={{ gap: 4 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center' }}>
            <Text variant="labelMedium" style={{ color: colours.inkSoft, flex: 1 }}>
              {strings.me}
            </Text>
            <Listen text={piece.reflection} />
          </View>
          <Text variant="bodyLarge">{piece.reflection}</Text>
        </View>
      ) : null}
      {piece.approved && piece.term ? <PickBox piece={piece} /> : null}
      <EarlierVersions
        versions={piece.versions
          .filter(({ withdrawnAt }) => withdrawnAt === null)
          .slice(piece.state === 'submitted' || piece.state === 'approved' ? 1 : 0)}
      />
    </Page>
  )
}

function NextStep({ piece }: { piece: Piece }) {
  const move = useOneMoreGo(piece.id)
  const work = usePieceWork(piece.id)
  const [asking, setAsking] = useState<'take-out' | 'bin' | null>(null)
  const throwAway = async () => {
    await work.bin(true)
    router.replace('/desk')
    toast(strings.thrownAway, () => void work.bin(false), strings.undo)
  }
  return (
    <>
      {move.isError ? <ProblemNotice error={move.error} /> : null}
      {piece.state === 'draft' || piece.state === 'returned' ? (
        <>
          <BigButton
            label={piece.parts.length > 0 ? strings.goOnWithIt : strings.addPhoto}
            symbol={piece.parts.length > 0 ? 'forward' : 'camera'}
            onPress={() =>
              router.push(`/my-pieces/${piece.id}/${piece.parts.length > 0 ? 'what' : 'photo'}`)
            }
          />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
            {piece.parts.length > 0 ? (
              <BigButton
                grow
                label={strings.addPhoto}
                symbol="camera"
                tone="quiet"
                onPress={() => router.push(`/my-pieces/${piece.id}/photo`)}
              />
            ) : null}
            <BigButton
              grow
              label={strings.addWriting}
              symbol="pencil"
              tone="quiet"
              onPress={() => router.push(`/my-pieces/${piece.id}/write`)}
            />
            {piece.state === 'draft' && !piece.approved ? (
              <BigButton
                grow
                label={strings.putAway}
                symbol="bin"
                tone="quiet"
                onPress={() => setAsking('bin')}
              />
            ) : null}
          </View>
        </>
      ) : null}
      {piece.state === 'submitted' ? (
        <BigButton
          label={strings.takeOut}
          symbol="tray-out"
          tone="quiet"
          onPress={() => setAsking('take-out')}
        />
      ) : null}
      {piece.state === 'approved' ? (
        <BigButton
          label={strings.haveAnotherGo}
          symbol="again"
          tone="quiet"
          onPress={() => move.mutate(piece.version)}
          busy={move.isPending}
        />
      ) : null}
      <Ask
        visible={asking === 'take-out'}
        title={strings.takeOutAsk}
        yes={strings.takeOutYes}
        no={strings.leaveIn}
        onNo={() => setAsking(null)}
        onYes={() => {
          setAsking(null)
          void work.withdraw()
        }}
      >
        {strings.takeOutHelp}
      </Ask>
      <Ask
        visible={asking === 'bin'}
        title={strings.putAwayAsk}
        yes={strings.putAway}
        tone="again"
        onNo={() => setAsking(null)}
        onYes={() => void throwAway()}
      >
        {strings.putAwayHelp}
      </Ask>
    </>
  )
}
