import { LONGEST_VOICE_MS } from '@nibquill/core'
import { useEffect, useRef, useState } from 'react'
import { View, type ViewStyle } from 'react-native'
import { record } from '../device/microphone'
import { canRecord } from '../device/recording'
import { useRecorded, type Recorded } from '../device/useRecorded'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { Bar, Stack } from '../kit/layout'
import { playingTime } from '../kit/playingTime'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { PlayHere } from './Player'
import { Bars } from './Waveform'
import { t } from './words'

/** Records a voice in the middle of a form; what was said goes on as a file. */
export function VoiceRecorder({
  label,
  onDone,
}: {
  label: string
  onDone: (recorded: Recorded) => void
}) {
  const { state, runMs, levels, start, stop, again } = useRecorded(
    () => record(t('voiceName')),
    LONGEST_VOICE_MS,
  )
  const done = useRef(onDone)
  done.current = onDone
  const recorded = state.at === 'recorded' ? state.recorded : null
  // Also where it ended by itself.
  useEffect(() => {
    if (!recorded) return
    again()
    done.current(recorded)
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [recorded])
  // Who leaves in the middle has said nothing.
  const end = useRef(stop)
  end.current = stop
  useEffect(() => () => void end.current(), [])
  if (!canRecord()) return null
  return (
    <Bar wrap gap="near">
      {state.at === 'recording' ? (
        <>
          <BigButton
            small
            tone="again"
            symbol="stop-recording"
            label={t('stop', { time: playingTime(runMs) })}
            onPress={() => void stop()}
          />
          <View style={METER}>
            <Bars levels={levels} />
          </View>
        </>
      ) : (
        <BigButton
          small
          tone="quiet"
          symbol="microphone"
          label={label}
          onPress={() => void start()}
        />
      )}
      {state.at === 'ready' && state.trouble ? <Hint tone="fault">{t('noMicrophone')}</Hint> : null}
    </Bar>
  )
}

/** As many of the last bars as there is room for. */
const METER: ViewStyle = {
  ...{ flex: 1, minWidth: 90, height: 56, overflow: 'hidden' },
  ...{ alignItems: 'flex-end', justifyContent: 'center' },
}

/** Words that are said: recorded, heard again, said anew. */
export function SpokenWords({
  label,
  said,
  onChange,
}: {
  label: string
  said: Recorded | null
  onChange: (said: Recorded | null) => void
}) {
  const [before, setBefore] = useState<Recorded | null>(null)
  const takeOut = () => {
    setBefore(said)
    onChange(null)
  }
  if (!said)
    return (
      <Bar wrap gap="near">
        <VoiceRecorder label={label} onDone={onChange} />
        {before ? (
          <BigButton
            small
            tone="quiet"
            symbol="undo"
            label={t('bringBack')}
            onPress={() => onChange(before)}
          />
        ) : null}
      </Bar>
    )
  return (
    <Stack gap="tight" role="group" aria-label={t('whatISay')}>
      <Bar gap="near">
        <View style={{ flex: 1 }}>
          <PlayHere key={said.file.lastModified} {...{ ...said, heard: null }} />
        </View>
        <RoundButton
          label={t('takeOut', { name: t('whatISay') })}
          symbol="bin"
          size={targets.adult}
          colour={colours.clay}
          onPress={takeOut}
        />
      </Bar>
      {said.quiet || said.tooLoud ? (
        <Hint tone="fault">{t(said.quiet ? 'heardNothing' : 'heardTooLoud')}</Hint>
      ) : null}
    </Stack>
  )
}
