import { isOpen, LONGEST_VOICE_MS } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Symbol, type SymbolName } from '../kit/Symbol'
import { colours, space } from '../kit/theme'
import { toast, ToastPlace } from '../kit/Toast'
import { PlayHere } from '../media/Player'
import { Bars } from '../media/Waveform'
import { PieceTrouble, usePieceWork, useShownPiece } from '../pieces'
import { useGoOnAfter } from './LastStep'
import { MakeHead } from './MakeHead'
import { useSaying, type Said } from './useSaying'
import { WhatTeacherSaid } from './WhatTeacherSaid'
import { t } from './words'

/** A voice, as a new piece or another part of one: said, heard, kept, or said again. */
export function SayScreen() {
  const { id, taskId } = useLocalSearchParams<{ id?: string; taskId?: string }>()
  const [fresh] = useState(() => newId())
  const pieceId = id ?? fresh
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  const work = usePieceWork(pieceId)
  const goOnAfter = useGoOnAfter()
  const { saying, spokenMs, levels, start, stop, pause, again, takeBack } = useSaying()
  // Whoever comes back to this screen may say more.
  const kept = useRef<File | null>(null)
  const keep = async (said: Said) => {
    if (kept.current === said.file) return
    kept.current = said.file
    await work.addVoice(newId(), said.file, taskId ?? null)
  }
  const keepAndGoOn = async (said: Said) => {
    await keep(said)
    if (!id) await comeBackTo(pieceId)
    goOnAfter('making', pieceId, piece?.task ?? null)
  }
  // Whoever leaves in the middle loses nothing.
  const leave = useRef(async () => undefined as void)
  leave.current = async () => {
    const said = saying.at === 'said' ? saying.said : await stop()
    if (said && !said.quiet) await keep(said)
  }
  useEffect(() => () => void leave.current(), [])

  if (id && !piece && query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  if (id && !piece) return <Loading />
  if (piece && !isOpen(piece.state))
    return (
      <Notice tone="attention" symbol="alert">
        {t('sayClosed')}
      </Notice>
    )
  const sayAgain = (said: Said) => {
    again()
    toast(t('saidAway'), { undo: () => takeBack(said) })
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('sayTitle')} />
      <Stack gap="near" style={{ paddingHorizontal: space.apart, paddingTop: space.near }}>
        {piece ? <WhatTeacherSaid piece={piece} /> : null}
        <PieceTrouble pieceId={pieceId} />
        {saying.at === 'ready' && saying.trouble ? (
          <Notice tone="attention" symbol="microphone">
            {t(saying.trouble === 'refused' ? 'micRefused' : 'micMissing')}
          </Notice>
        ) : null}
      </Stack>
      <Stack gap="clear" style={STAGE}>
        {saying.at === 'ready' || saying.at === 'asking' ? (
          <>
            <Told words={t(saying.at === 'asking' ? 'sayAllow' : 'sayHelp')} />
            <Round label={t('sayStart')} symbol="microphone" onPress={() => void start()} />
          </>
        ) : saying.at === 'recording' ? (
          <Running
            levels={levels}
            spokenMs={spokenMs}
            paused={saying.paused}
            onPause={pause}
            onStop={() => void stop()}
          />
        ) : (
          <SaidIt said={saying.said} onAgain={() => sayAgain(saying.said)}>
            <BigButton
              label={t('sayKeep')}
              symbol="check"
              onPress={() => void keepAndGoOn(saying.said)}
            />
          </SaidIt>
        )}
      </Stack>
      <ToastPlace />
    </View>
  )
}

/** The way back leads to this piece; it is set before the next way is taken. */
async function comeBackTo(pieceId: string): Promise<void> {
  router.setParams({ id: pieceId })
  await new Promise((done) => setTimeout(done, 50))
}

function Running({
  levels,
  spokenMs,
  paused,
  onPause,
  onStop,
}: {
  levels: readonly number[]
  spokenMs: number
  paused: boolean
  onPause: () => void
  onStop: () => void
}) {
  return (
    <>
      <Bars levels={levels} />
      <Text role="timer" variant="headlineMedium">
        {t('timeSaid', { time: clock(spokenMs), left: clock(LONGEST_VOICE_MS - spokenMs) })}
      </Text>
      <Round label={t('sayStop')} symbol="stop-recording" stops onPress={onStop} />
      <BigButton
        tone="quiet"
        symbol={paused ? 'microphone' : 'pause'}
        label={t(paused ? 'sayOn' : 'sayPause')}
        onPress={onPause}
      />
    </>
  )
}

function SaidIt({
  said,
  onAgain,
  children,
}: {
  said: Said
  onAgain: () => void
  children: ReactNode
}) {
  return (
    <Stack gap="clear" style={{ width: '100%', maxWidth: 480 }}>
      {said.quiet || said.tooLoud ? (
        <Notice tone="attention" symbol="bulb">
          {t(said.quiet ? 'saidQuiet' : 'saidTooLoud')}
        </Notice>
      ) : null}
      <Told words={t('saidHelp')} />
      <PlayHere file={said.file} />
      {children}
      <BigButton tone="quiet" symbol="again" label={t('sayAgain')} onPress={onAgain} />
    </Stack>
  )
}

function Told({ words }: { words: string }) {
  return (
    <Bar gap="near" style={{ maxWidth: 480 }}>
      <Text variant="titleLarge" style={{ textAlign: 'center', flexShrink: 1 }}>
        {words}
      </Text>
      <Listen text={words} />
    </Bar>
  )
}

/** The one thing to tap. */
function Round({
  label,
  symbol,
  stops = false,
  onPress,
}: {
  label: string
  symbol: SymbolName
  stops?: boolean
  onPress: () => void
}) {
  return (
    <Press
      label={label}
      onPress={onPress}
      style={{
        ...{ width: ROUND_PX, height: ROUND_PX, borderRadius: ROUND_PX / 2 },
        ...{ alignItems: 'center', justifyContent: 'center' },
        backgroundColor: stops ? colours.clay : colours.aubergine,
      }}
    >
      <Symbol name={symbol} size={64} colour={colours.sheet} />
      <Text variant="titleMedium" style={{ color: colours.sheet }}>
        {label}
      </Text>
    </Press>
  )
}
const ROUND_PX = 168

const clock = (ms: number): string => {
  const seconds = Math.max(0, Math.round(ms / 1000))
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}

const STAGE: ViewStyle = {
  ...{ flex: 1, alignItems: 'center', justifyContent: 'center', padding: space.far },
}
