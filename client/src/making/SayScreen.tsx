import { LONGEST_VOICE_MS } from '@nibquill/core'
import { useState } from 'react'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { record } from '../device/microphone'
import { useWillAsk } from '../device/useWillAsk'
import { BigButton } from '../kit/BigButton'
import { Stack } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { playingTime } from '../kit/playingTime'
import { colours, space } from '../kit/theme'
import { toast, ToastPlace } from '../kit/Toast'
import { PlayHere } from '../media/Player'
import { Bars } from '../media/Waveform'
import { OpenPiece, Round, Told } from './OneGo'
import { MakeHead } from './MakeHead'
import { useOneGo } from './useOneGo'
import type { Recorded } from '../device/useRecorded'
import { t } from './words'

/** A voice: said, heard, kept, or said again. */
export function SayScreen() {
  const { recording, keepAndGoOn, ...place } = useOneGo(
    'voice',
    (keep) => record(t('voiceName'), keep),
    LONGEST_VOICE_MS,
    ({ quiet }) => !quiet,
  )
  const asks = useWillAsk()
  const { state, runMs, levels, start, stop, pause, again, takeBack } = recording
  const sayAgain = (said: Recorded) => {
    again()
    toast(t('saidAway'), { undo: () => takeBack(said) })
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('sayTitle')} />
      <OpenPiece {...place} closed={t('sayClosed')}>
        {state.at === 'ready' && state.trouble ? (
          <Stack style={{ paddingHorizontal: space.apart }}>
            <Notice tone="attention" symbol="microphone">
              {t(state.trouble === 'refused' ? 'micRefused' : 'micMissing')}
            </Notice>
          </Stack>
        ) : null}
        <Stack gap="clear" style={STAGE}>
          {state.at === 'ready' || state.at === 'asking' ? (
            <>
              <Told
                words={t(state.at === 'asking' ? 'sayAllow' : asks ? 'sayBefore' : 'sayHelp')}
              />
              <Round label={t('sayStart')} symbol="microphone" onPress={() => void start()} />
            </>
          ) : state.at === 'recording' ? (
            <Running
              levels={levels}
              spokenMs={runMs}
              paused={state.paused}
              onPause={pause}
              onStop={() => void stop()}
            />
          ) : (
            <SaidIt
              key={state.recorded.file.lastModified}
              said={state.recorded}
              onAgain={() => sayAgain(state.recorded)}
              onKeep={(said) => void keepAndGoOn(said)}
            />
          )}
        </Stack>
      </OpenPiece>
      <ToastPlace />
    </View>
  )
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
        {t('timeSaid', {
          time: playingTime(spokenMs),
          left: playingTime(LONGEST_VOICE_MS - spokenMs),
        })}
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
  onKeep,
}: {
  said: Recorded
  onAgain: () => void
  onKeep: (said: Recorded) => void
}) {
  const [whole, setWhole] = useState(false)
  const heard = whole ? null : said.heard
  return (
    <Stack gap="clear" style={{ width: '100%', maxWidth: 480 }}>
      {said.quiet || said.tooLoud ? (
        <Notice tone="attention" symbol="bulb">
          {t(said.quiet ? 'saidQuiet' : 'saidTooLoud')}
        </Notice>
      ) : null}
      <Told words={t('saidHelp')} />
      <PlayHere key={String(whole)} file={said.file} ms={said.ms} heard={heard} />
      {said.heard ? (
        <BigButton
          small
          tone="quiet"
          symbol={whole ? 'trim' : 'undo'}
          label={t(whole ? 'leaveSilenceOut' : 'silenceLeftOut')}
          onPress={() => setWhole(!whole)}
        />
      ) : null}
      <BigButton label={t('sayKeep')} symbol="check" onPress={() => onKeep({ ...said, heard })} />
      <BigButton tone="quiet" symbol="again" label={t('sayAgain')} onPress={onAgain} />
    </Stack>
  )
}

const STAGE: ViewStyle = {
  ...{ flex: 1, alignItems: 'center', justifyContent: 'center', padding: space.far },
}
