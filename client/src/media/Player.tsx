import type { Peaks } from '@nibquill/contract'
import type { Stretch } from '@nibquill/core/sound/silence'
import { useContext, useEffect, useRef, useState, type CSSProperties, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import type { Recorded } from '../device/useRecorded'
import { BigButton } from '../kit/BigButton'
import { ForPupil } from '../kit/forPupil'
import { Bar, Stack } from '../kit/layout'
import { playingTime } from '../kit/playingTime'
import { play as playOnly } from '../kit/speech'
import { colours, corners } from '../kit/theme'
import { mediaAddress, type Readable } from './mediaAddress'
import { speeds } from './playingSpeed'
import { useCaptions } from './useCaptions'
import { usePeaks } from './usePeaks'
import { Waveform } from './Waveform'
import { t } from './words'

/** A recording, played from the form every browser plays, or from this tablet. */
export function Player({
  file,
  link,
  heard = null,
}: {
  file: Readable
  link?: string | undefined
  /** What of it is played; null for all. */
  heard?: Stretch | null
}) {
  const src = mediaAddress(file, 'playable', link)
  const peaks = usePeaks(file, link)
  return (
    <Sounding
      key={file.mediaId}
      src={src}
      peaks={peaks && heard ? peaksWithin(peaks, heard) : peaks}
      heard={heard}
    />
  )
}

/** Its bars within a stretch, as if there were nothing else. */
function peaksWithin({ durationMs, peaks }: Peaks, { fromMs, toMs }: Stretch): Peaks {
  const at = (ms: number) => Math.round((ms / durationMs) * peaks.length)
  return { durationMs: toMs - fromMs, peaks: peaks.slice(at(fromMs), at(toMs)) }
}

/** A recording that was just made, and lies nowhere yet. */
export function PlayHere({ file, ms, heard }: Pick<Recorded, 'file' | 'ms' | 'heard'>) {
  const durationMs = heard ? heard.toMs - heard.fromMs : ms
  return <Sounding src={useAddressOf(file)} peaks={{ durationMs, peaks: [] }} heard={heard} own />
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
  heard,
  own = false,
}: {
  src: string
  peaks: Peaks | null
  heard: Stretch | null
  own?: boolean
}) {
  const [audio] = useState(() => Object.assign(new Audio(), { preload: 'none', src }))
  const playing = usePlaying(audio, heard)
  useSource(audio, src, playing.on)
  return <PlayerBar playing={playing} peaks={peaks} own={own} />
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
  words = '',
  below,
}: {
  file: Readable
  link?: string | undefined
  poster: string | undefined
  alt: string
  /** What is said in it, read over it while it plays. */
  words?: string
  below?: Below
}) {
  const src = mediaAddress(file, 'playable', link)
  const peaks = usePeaks(file, link)
  return <Film key={file.mediaId} {...{ src, poster, alt, words, peaks, below }} />
}

/** What is done with the moment that is shown. */
type Below = (video: HTMLVideoElement) => ReactNode

/** A film that was just made, and lies nowhere yet. */
export function FilmHere({ file, alt }: { file: File; alt: string }) {
  const src = useAddressOf(file)
  return <Film src={src} poster={undefined} alt={alt} words="" peaks={null} />
}

function Film({
  src,
  poster,
  alt,
  words,
  peaks,
  below,
}: {
  src: string
  poster: string | undefined
  alt: string
  words: string
  peaks: Peaks | null
  below?: Below | undefined
}) {
  const [video, setVideo] = useState<HTMLVideoElement | null>(null)
  const playing = usePlaying(video)
  useCaptions(video, words, peaks)
  const source = useSteady(src, playing.on)
  return (
    <Stack gap="near" style={{ flex: 1, minHeight: 220 }}>
      <video
        ref={setVideo}
        src={source}
        poster={poster}
        preload={below ? 'auto' : poster ? 'none' : 'metadata'}
        playsInline
        aria-label={alt}
        onClick={playing.toggle}
        style={FILM}
      />
      <PlayerBar playing={playing} peaks={peaks} play={t('watch')} />
      {video && below ? below(video) : null}
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

/** Nobody is cut off because what they hear has been made ready meanwhile: that is for the next time. */
function useSteady(src: string, on: boolean): string {
  const steady = useRef(src)
  if (!on) steady.current = src
  return steady.current
}

/** Where a sound is read, once nobody hears it. */
export function useSource(audio: HTMLAudioElement, src: string, on: boolean): void {
  const source = useSteady(src, on)
  useEffect(() => {
    if (audio.getAttribute('src') !== source) audio.src = source
  }, [audio, source])
}

/**
 * @param media - Null until it is there.
 * @param heard - What of it is played; null for all.
 * @returns what goes on, in seconds from where it begins to be played
 */
export function usePlaying(media: HTMLMediaElement | null, heard: Stretch | null = null) {
  const from = (heard?.fromMs ?? 0) / 1000
  const to = heard ? heard.toMs / 1000 : Infinity
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
      setAt(Math.max(0, media.currentTime - from))
      if (media.currentTime >= to && !media.paused) {
        stop.current?.()
        playedOut()
      }
      // A recording that was just made does not know its length.
      if (Number.isFinite(media.duration)) setSeconds(media.duration)
    }
    const playedOut = () => {
      media.currentTime = from
      setAt(0)
    }
    for (const name of LOOKED_AT) media.addEventListener(name, look)
    media.addEventListener('ended', playedOut)
    return () => {
      for (const name of LOOKED_AT) media.removeEventListener(name, look)
      media.removeEventListener('ended', playedOut)
      stop.current?.()
    }
  }, [media, from, to])
  useEffect(() => {
    if (media) media.defaultPlaybackRate = media.playbackRate = speed
  }, [media, speed])
  const toggle = () => {
    if (on || !media) return stop.current?.()
    if (media.currentTime < from || media.currentTime >= to) media.currentTime = from
    setOn(true)
    setFailed(false)
    stop.current = playOnly(
      media,
      () => setOn(false),
      () => setFailed(true),
    )
  }
  const seek = (there: number) => {
    if (media) media.currentTime = from + there
    setAt(there)
  }
  return { on, failed, at, seconds, toggle, seek }
}
const LOOKED_AT = ['timeupdate', 'durationchange', 'seeked'] as const
