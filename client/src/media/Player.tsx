import type { Peaks } from '@nibquill/contract'
import { useContext, useEffect, useRef, useState, type CSSProperties } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { ForPupil } from '../kit/forPupil'
import { Bar, Stack } from '../kit/layout'
import { playingTime } from '../kit/playingTime'
import { play as playOnly } from '../kit/speech'
import { colours, corners } from '../kit/theme'
import { mediaAddress, type Readable } from './mediaAddress'
import { speeds } from './playingSpeed'
import { usePeaks } from './usePeaks'
import { Waveform } from './Waveform'
import { t } from './words'

/** A recording, played from the form every browser plays, or from this tablet. */
export function Player({ file, link }: { file: Readable; link?: string | undefined }) {
  const src = mediaAddress(file, 'playable', link)
  return <Sounding key={src} src={src} peaks={usePeaks(file, link)} />
}

/** A recording that was just made, and lies nowhere yet. @param ms - How long it is. */
export function PlayHere({ file, ms }: { file: File; ms: number }) {
  return <Sounding src={useAddressOf(file)} peaks={{ durationMs: ms, peaks: [] }} own />
}

/** For as long as it is shown. */
export function useAddressOf(file: File): string {
  const [src] = useState(() => URL.createObjectURL(file))
  useEffect(() => () => URL.revokeObjectURL(src), [src])
  return src
}

function Sounding({
  src,
  peaks,
  own = false,
}: {
  src: string
  peaks: Peaks | null
  own?: boolean
}) {
  const [audio] = useState(() => Object.assign(new Audio(), { preload: 'none', src }))
  return <PlayerBar playing={usePlaying(audio)} peaks={peaks} own={own} />
}

/**
 * A film, and the same to play it with as a recording.
 * @param poster - The address of what stands for it until it plays.
 */
export function FilmPlayer({
  file,
  link,
  poster,
  alt,
}: {
  file: Readable
  link?: string | undefined
  poster: string | undefined
  alt: string
}) {
  const src = mediaAddress(file, 'playable', link)
  return <Film key={src} src={src} poster={poster} alt={alt} peaks={usePeaks(file, link)} />
}

/** A film that was just made, and lies nowhere yet. */
export function FilmHere({ file, alt }: { file: File; alt: string }) {
  const src = useAddressOf(file)
  return <Film src={src} poster={undefined} alt={alt} peaks={null} />
}

function Film({
  src,
  poster,
  alt,
  peaks,
}: {
  src: string
  poster: string | undefined
  alt: string
  peaks: Peaks | null
}) {
  const [video, setVideo] = useState<HTMLVideoElement | null>(null)
  const playing = usePlaying(video)
  return (
    <Stack gap="near" style={{ flex: 1, minHeight: 220 }}>
      <video
        ref={setVideo}
        src={src}
        poster={poster}
        preload={poster ? 'none' : 'metadata'}
        playsInline
        aria-label={alt}
        onClick={playing.toggle}
        style={FILM}
      />
      <PlayerBar playing={playing} peaks={peaks} play={t('watch')} />
    </Stack>
  )
}
const FILM: CSSProperties = {
  ...{ flex: 1, minHeight: 160, width: '100%', objectFit: 'contain' },
  ...{ backgroundColor: colours.ink, borderRadius: corners.button, cursor: 'pointer' },
}

/** To play, to move along, and how fast. */
export function PlayerBar({
  playing,
  peaks,
  play = t('hear'),
  own = false,
}: {
  playing: Playing
  peaks: Peaks | null
  play?: string
  /** Just recorded by whoever listens: nobody hurries through their own words. */
  own?: boolean
}) {
  const forPupil = useContext(ForPupil)
  const [speed, setSpeed] = speeds.use()
  const seconds = peaks ? peaks.durationMs / 1000 : playing.seconds
  return (
    <Bar wrap gap="near">
      <BigButton
        small
        tone="quiet"
        symbol={playing.on ? 'pause' : 'play'}
        label={playing.on ? t('pause') : play}
        onPress={playing.toggle}
      />
      {seconds > 0 ? (
        <Bar gap="near" style={{ flex: 1, minWidth: 110 }}>
          <View style={{ flex: 1 }}>
            <Waveform
              peaks={peaks?.peaks ?? []}
              at={playing.at}
              seconds={seconds}
              onSeek={playing.seek}
            />
          </View>
          <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
            {playingTime(1000 * (playing.at > 0 ? playing.at : seconds))}
          </Text>
        </Bar>
      ) : null}
      {forPupil || own ? null : (
        <BigButton
          small
          tone="quiet"
          label={t('speed', { speed })}
          onPress={() => setSpeed(speeds.after(speed))}
        />
      )}
      {playing.failed ? (
        <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
          {t('cannotPlay')}
        </Text>
      ) : null}
    </Bar>
  )
}

type Playing = ReturnType<typeof usePlaying>

/** @param media - Null until it is there. @returns what goes on, in seconds */
export function usePlaying(media: HTMLMediaElement | null) {
  const forPupil = useContext(ForPupil)
  const [chosen] = speeds.use()
  const speed = forPupil ? 1 : chosen
  const [on, setOn] = useState(false)
  const [failed, setFailed] = useState(false)
  const [at, setAt] = useState(0)
  const [seconds, setSeconds] = useState(0)
  const stop = useRef<() => void>(undefined)
  useEffect(() => {
    if (!media) return
    const look = () => {
      setAt(media.currentTime)
      // A recording that was just made does not know its length.
      if (Number.isFinite(media.duration)) setSeconds(media.duration)
    }
    const playedOut = () => {
      media.currentTime = 0
      look()
    }
    for (const name of LOOKED_AT) media.addEventListener(name, look)
    media.addEventListener('ended', playedOut)
    return () => {
      for (const name of LOOKED_AT) media.removeEventListener(name, look)
      media.removeEventListener('ended', playedOut)
      stop.current?.()
    }
  }, [media])
  useEffect(() => {
    if (media) media.defaultPlaybackRate = media.playbackRate = speed
  }, [media, speed])
  const toggle = () => {
    if (on || !media) return stop.current?.()
    setOn(true)
    setFailed(false)
    stop.current = playOnly(
      media,
      () => setOn(false),
      () => setFailed(true),
    )
  }
  const seek = (to: number) => {
    if (media) media.currentTime = to
    setAt(to)
  }
  return { on, failed, at, seconds, toggle, seek }
}
const LOOKED_AT = ['timeupdate', 'durationchange', 'seeked'] as const
