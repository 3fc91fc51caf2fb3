import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { SaidUnder } from '../comments'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Bar, Heading, Page, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice, ProblemNotice } from '../kit/Notice'
import { PartsViewer } from '../parts/PartsViewer'
import { Press } from '../kit/Press'

import { DrawnSymbol } from '../kit/DrawnSymbol'
import { lookOf } from '../parts/partKinds'
import { colours, stateColours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { PickBox } from '../portfolio'
import { PartsStrip, TakeOut, useGoOnAfter } from '../making'
import {
  TeacherSaid,
  EarlierVersions,
  PieceTrouble,
  useMarkUps,
  useOneMoreGo,
  usePieceWork,
  WithPiece,
  piecesWords,
} from '../pieces'
import { t as kitWords } from '../kit/words'
import { AddShelf } from './AddShelf'
import { KeptBox, useKept } from './KeptBox'
import { t } from './words'

export function MyPieceScreen() {
  return <WithPiece>{(piece) => <MyPiece piece={piece} />}</WithPiece>
}

/** One piece of mine: what it looks like, what my teacher said, and the one thing to do next. */
function MyPiece({ piece }: { piece: Piece }) {
  const { height } = useWidth()
  const decision = piece.versions.find((version) => version.decision)?.decision
  const marks = useMarkUps(piece.id).data ?? []
  // On what was decided last; what is made of it since is looked at without.
  const lastMarks = marks.filter(
    ({ versionId }) => versionId === piece.versions.find((version) => version.decision)?.id,
  )
  const closed = piece.classPiece?.closed === true && piece.state !== 'returned'
  const open = (piece.state === 'draft' || piece.state === 'returned') && !closed
  const look = stateColours[piece.state]
  const kept = useKept(piece)
  const folder = kept.where ?? piece.folder
  const title = piece.title || piece.task?.title || piecesWords('untitled')
  return (
    <Page foot={closed || !piece.mayChange ? undefined : <NextStep piece={piece} />}>
      <Bar>
        <Press
          label={kitWords('back')}
          onPress={() => (router.canGoBack() ? router.back() : router.replace('/desk'))}
          style={{ width: targets.pupil, height: targets.pupil, justifyContent: 'center' }}
        >
          <DrawnSymbol name="back" size={30} />
        </Press>
        <View style={{ flex: 1 }}>
          <Heading level={1}>{title}</Heading>
          <Text variant="labelMedium" style={{ color: look.text }}>
            {kitWords(`states.${piece.state}`)}
            {folder ? ` · ${folder.name}` : ''}
            {piece.goes > 1 ? ` · ${kitWords('goes', { goes: piece.goes })}` : ''}
          </Text>
        </View>
      </Bar>
      {closed ? (
        <Notice tone="attention" symbol="lock">
          {t('closedSays')}
        </Notice>
      ) : null}
      {piece.classPiece?.instructions && !closed ? (
        <Notice tone="news" symbol="layers">
          {piece.classPiece.instructions}
        </Notice>
      ) : null}
      <TeacherSaid decision={decision} />
      {piece.parts.length > 0 ? (
        <View style={{ height: Math.max(300, Math.min(560, height * 0.5)) }}>
          <PartsViewer parts={piece.parts} title={title} marks={lastMarks} />
        </View>
      ) : null}
      <PieceTrouble pieceId={piece.id} />
      {open ? <PartsStrip pieceId={piece.id} parts={piece.parts} /> : null}
      {piece.reflection ? (
        <Stack gap="tight">
          <Bar gap="none">
            <Text variant="labelMedium" style={{ color: colours.inkSoft, flex: 1 }}>
              {t('me')}
            </Text>
            <Listen text={piece.reflection} />
          </Bar>
          <Text variant="bodyLarge">{piece.reflection}</Text>
        </Stack>
      ) : null}
      {piece.approved && piece.term ? <PickBox piece={piece} /> : null}
      {kept.mayChoose && piece.state === 'approved' ? (
        <KeptBox pieceId={piece.id} where={folder} />
      ) : null}
      <SaidUnder piece={piece} together={kept.together} />
      <EarlierVersions
        marks={marks}
        all={piece.versions}
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
  const [asking, setAsking] = useState(false)
  const throwAway = async () => {
    await work.bin(true)
    router.replace('/desk')
    toast(t('thrownAway'), { undo: () => void work.bin(false) })
  }
  return (
    <>
      {move.isError ? <ProblemNotice error={move.error} /> : null}
      {piece.state === 'draft' || piece.state === 'returned' ? (
        <GoOnWithIt piece={piece} onPutAway={() => setAsking(true)} />
      ) : null}
      {piece.state === 'submitted' ? <TakeOut pieceId={piece.id} /> : null}
      {piece.state === 'approved' ? (
        <BigButton
          label={t('haveAnotherGo')}
          symbol="again"
          tone="quiet"
          onPress={() => move.mutate(piece.version)}
          busy={move.isPending}
        />
      ) : null}
      <Ask
        visible={asking}
        title={t('putAwayAsk')}
        yes={t('putAway')}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => void throwAway()}
      >
        {t('putAwayHelp')}
      </Ask>
    </>
  )
}

/** What can be done to a piece that is still open. */
function GoOnWithIt({ piece, onPutAway }: { piece: Piece; onPutAway: () => void }) {
  const goOnWith = useGoOnWith(piece)
  return (
    <>
      <AddShelf pieceId={piece.id} />
      <Bar wrap align="stretch">
        {piece.parts.length > 0 ? (
          <BigButton grow label={t('goOnWithIt')} symbol="forward" onPress={goOnWith} />
        ) : null}
        {piece.state === 'draft' && !piece.approved ? (
          <BigButton label={t('putAway')} symbol="bin" tone="quiet" onPress={onPutAway} />
        ) : null}
      </Bar>
    </>
  )
}

/**
 * A draft goes on with its last steps; another go begins at what was made, which the teacher wants
 * changed.
 */
function useGoOnWith(piece: Piece): () => void {
  const goOnAfter = useGoOnAfter()
  return () => {
    const [first] = piece.parts
    if (first && piece.state === 'draft') return goOnAfter('making', piece.id, piece.task)
    const goOn = first && lookOf(first).goOn
    router.push(
      goOn ? `/my-pieces/${piece.id}/parts/${first.id}/${goOn}` : `/my-pieces/${piece.id}/photo`,
    )
  }
}
