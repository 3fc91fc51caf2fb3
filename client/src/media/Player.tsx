import type { Peaks } from '@nibquill/contract'
import { useContext, useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { ForPupil } from '../kit/forPupil'
import { Bar } from '../kit/layout'
import { play } from '../kit/speech'
import { colours } from '../kit/theme'
import { mediaAddress, type Readable } from './mediaAddress'
import { speeds } from './playingSpeed'
import { usePeaks } from './usePeaks'
import { Waveform } from './Waveform'
import { t } from './words'

/** A recording, played from the form every browser plays, or from this tablet. */
export function Player({ file, link }: { file: Readable; link?: string | undefined }) {
  const src = mediaAddress(file, 'playable', link)
  return <Playing key={src} src={src} peaks={usePeaks(file, link)} />
}

/** A recording that was just made, and lies nowhere yet. */
export function PlayHere({ file }: { file: File }) {
  const [src] = useState(() => URL.createObjectURL(file))
  useEffect(() => () => URL.revokeObjectURL(src), [src])
  return <Playing src={src} peaks={null} />
}

function Playing({ src, peaks }: { src: string; peaks: Peaks | null }) {
  const forPupil = useContext(ForPupil)
  const [speed, setSpeed] = speeds.use()
  const player = usePlaying(src, forPupil ? 1 : speed)
  const seconds = peaks ? peaks.durationMs / 1000 : player.seconds
  return (
    <Bar wrap gap="near">
      <BigButton
        small
        tone="quiet"
        symbol={player.playing ? 'pause' : 'play'}
        label={player.playing ? t('pause') : t('hear')}
        onPress={player.toggle}
      />
      {seconds > 0 ? (
        <Bar gap="near" style={{ flex: 1, minWidth: 180 }}>
          <View style={{ flex: 1 }}>
            <Waveform
              peaks={peaks?.peaks ?? []}
              at={player.at}
              seconds={seconds}
              onSeek={player.seek}
            />
          </View>
          <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
            {clock(player.at > 0 ? player.at : seconds)}
          </Text>
        </Bar>
      ) : null}
      {forPupil ? null : (
        <BigButton
          small
          tone="quiet"
          label={t('speed', { speed })}
          onPress={() => setSpeed(speeds.after(speed))}
        />
      )}
      {player.failed ? (
        <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
          {t('cannotPlay')}
        </Text>
      ) : null}
    </Bar>
  )
}

const clock = (seconds: number): string => {
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}

/** Nothing is fetched before it is to be heard. @returns what goes on, in seconds */
function usePlaying(src: string, speed: number) {
  const [audio] = useState(() => Object.assign(new Audio(), { preload: 'none', src }))
  const [playing, setPlaying] = useState(false)
  const [failed, setFailed] = useState(false)
  const [at, setAt] = useState(0)
  const [seconds, setSeconds] = useState(0)
  const stop = useRef<() => void>(undefined)
  useEffect(() => {
    const look = () => {
      setAt(audio.currentTime)
      // A recording that was just made does not know its length.
      if (Number.isFinite(audio.duration)) setSeconds(audio.duration)
    }
    const heardOut = () => {
      audio.currentTime = 0
      look()
    }
    for (const name of LOOKED_AT) audio.addEventListener(name, look)
    audio.addEventListener('ended', heardOut)
    return () => {
      for (const name of LOOKED_AT) audio.removeEventListener(name, look)
      audio.removeEventListener('ended', heardOut)
      stop.current?.()
    }
  }, [audio])
  useEffect(() => {
    audio.defaultPlaybackRate = audio.playbackRate = speed
  }, [audio, speed])
  const toggle = () => {
    if (playing) return stop.current?.()
    setPlaying(true)
    setFailed(false)
    stop.current = play(
      audio,
      () => setPlaying(false),
      () => setFailed(true),
    )
  }
  const seek = (to: number) => {
    audio.currentTime = to
    setAt(to)
  }
  return { playing, failed, at, seconds, toggle, seek }
}
const LOOKED_AT = ['timeupdate', 'durationchange', 'seeked'] as const
