import type { Piece } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { v7 as newId } from 'uuid'
import { useSession } from '../accounts'
import { pickForPiece, pickPictures } from '../device/pickFiles'
import { askToStay, LITTLE_ROOM_BYTES, roomLeft } from '../device/room'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Bar, Foot, Page, Stack, useWidth } from '../kit/layout'
import { Loading, Notice } from '../kit/Notice'
import { sentenceOf } from '../kit/problems'
import { colours, space } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { pickUp } from '../parts/pickedFiles'
import { useShownPiece } from '../pieces'
import { CameraStage } from './CameraStage'
import { useGoOnFromMaking } from './LastStep'
import { MakeHead } from './MakeHead'
import { PartsStrip } from './PartsStrip'
import { WhatTeacherSaid } from './WhatTeacherSaid'
import { useTakingIn } from './useTakingIn'
import { t } from './words'

/**
 * Full screen: look and tap, as often as it takes; or what was picked, laid out large. One way on,
 * at the foot.
 */
export function MakePhotoScreen() {
  const { id, taskId, pick } = useLocalSearchParams<{
    id?: string
    taskId?: string
    pick?: string
  }>()
  const session = useSession()
  const [freshId] = useState(() => newId())
  const pieceId = id ?? freshId
  const { piece } = useShownPiece(pieceId, id !== undefined)
  const ownerId = session.data?.person?.id
  const goOn = useGoOnFromMaking(pieceId, piece, taskId)
  const parts = piece?.parts ?? []
  const taking = useTakingIn({
    pieceId,
    taskId: taskId ?? null,
    parts,
    onStarted: () => {
      // So that whoever comes back to this screen comes back to this piece.
      if (id === undefined) router.setParams({ id: pieceId })
    },
  })
  // Picked on the screen before: taken in once it is known whose they are.
  const { take } = taking
  useEffect(() => {
    if (ownerId) void take(pickUp())
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ownerId])
  if (!ownerId) return <Loading />
  const picking = pick === '1'
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={picking ? t('pickedTitle') : t('takePhoto')} />
      <WordsBefore taking={taking} piece={piece} />
      {picking ? (
        <Picked pieceId={pieceId} parts={parts} onPick={() => void pickForPiece().then(take)} />
      ) : (
        <>
          <CameraStage
            count={parts.length}
            onPhoto={(file) => void take([file])}
            onKeep={(file) => taking.keep([file])}
            onPick={() => void pickPictures().then(take)}
          />
          <ToastPlace />
          <SoFar pieceId={pieceId} parts={parts} />
        </>
      )}
      {parts.length > 0 ? (
        <Foot>
          <BigButton label={t('goOn')} symbol="forward" onPress={goOn} />
        </Foot>
      ) : null}
      <Ask
        visible={taking.again.length > 0}
        title={t('hereAlready', { count: taking.again.length })}
        yes={t('useAgain')}
        no={t('leaveOut')}
        onYes={taking.useAgain}
        onNo={taking.leaveOut}
      >
        {t('hereAlreadyHelp')}
      </Ask>
    </View>
  )
}

/** What is to be known before one goes on: what the teacher asked for, and what went wrong. */
function WordsBefore({
  taking,
  piece,
}: {
  taking: ReturnType<typeof useTakingIn>
  piece: Piece | null
}) {
  const little = useLittleRoom()
  return (
    <Stack gap="near" style={{ paddingHorizontal: space.apart, paddingTop: space.near }}>
      {piece ? <WhatTeacherSaid piece={piece} /> : null}
      {taking.problem ? (
        <Notice tone="again" symbol="alert">
          {sentenceOf(taking.problem)}
        </Notice>
      ) : null}
      {[...taking.words, ...(little ? [t('littleRoom')] : [])].map((words) => (
        <Notice key={words} tone="attention" symbol="bulb">
          {words}
        </Notice>
      ))}
    </Stack>
  )
}

/** Said before something is made that might not fit. */
function useLittleRoom(): boolean {
  const [little, setLittle] = useState(false)
  useEffect(() => {
    askToStay()
    void roomLeft().then((bytes) => setLittle(bytes !== null && bytes < LITTLE_ROOM_BYTES))
  }, [])
  return little
}

type PartsProps = { pieceId: string; parts: Piece['parts'] }

/** The shots so far, the last of them in sight, large enough to be judged. */
function SoFar({ pieceId, parts }: PartsProps) {
  const strip = useRef<ScrollView>(null)
  if (parts.length === 0) return null
  return (
    <ScrollView
      ref={strip}
      horizontal
      onContentSizeChange={() => strip.current?.scrollToEnd({ animated: false })}
      style={{
        flexGrow: 0,
        backgroundColor: colours.sheet,
        borderTopWidth: 1,
        borderTopColor: colours.rule,
      }}
      contentContainerStyle={{ padding: space.apart }}
    >
      <PartsStrip pieceId={pieceId} parts={parts} row tilePx={188} />
    </ScrollView>
  )
}

/** What was picked stands on the desk, a sheet each, to be tidied or put back. */
function Picked({ pieceId, parts, onPick }: PartsProps & { onPick: () => void }) {
  const { width } = useWidth()
  return (
    <Page max={1080}>
      <PartsStrip pieceId={pieceId} parts={parts} tilePx={Math.min(340, width - 2 * space.far)} />
      <Bar wrap align="stretch">
        <BigButton
          tone={parts.length > 0 ? 'quiet' : 'primary'}
          symbol="pictures"
          label={parts.length > 0 ? t('pickMore') : t('pickAny')}
          onPress={onPick}
        />
        <BigButton
          tone="quiet"
          symbol="camera"
          label={t('takePhoto')}
          onPress={() => router.setParams({ pick: '' })}
        />
      </Bar>
    </Page>
  )
}
