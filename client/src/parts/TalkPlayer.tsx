import type { TalkPart } from '@nibquill/contract'
import { showThing } from '@nibquill/core/ink/display'
import { inkOfTalk, TalkReplay, type Talk } from '@nibquill/core/ink/talk'
import { useContext, useEffect, useRef, useState, type CSSProperties } from 'react'
import { ForPupil } from '../kit/forPupil'
import { Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { RuledLines } from '../kit/RuledLines'
import { mediaAddress } from '../media/mediaAddress'
import { Picture } from '../media/Picture'
import { PlayerBar, useAddressOf, usePlaying, useSource } from '../media/Player'
import { usePeaks } from '../media/usePeaks'
import {
  layUnder,
  onSheetOnly,
  paint,
  PaintedSheet,
  wipe,
  type View as Laid,
} from '../sheets/paint'
import { Pictures } from '../sheets/pictures'
import { FilmOfTalk } from './FilmOfTalk'
import { PictureStage } from './PictureStage'
import { SvgSheet } from './SvgSheet'
import { useTalk } from './talkQuery'
import { t } from './words'

type PartProps = { part: TalkPart; alt: string; link?: string }

/** A talk-through at school, or on its way there: played from the form every browser plays. */
export function TalkStagePlayer({ part, alt, link }: PartProps) {
  const { talk, error, tryAgain } = useTalk(part, link)
  const { sound } = part.files
  const src = mediaAddress(sound, 'playable', link)
  const peaks = usePeaks(sound, link)
  const forPupil = useContext(ForPupil)
  if (!talk)
    return (
      <>
        {error ? <ProblemNotice error={error} onRetry={tryAgain} /> : null}
        <PictureStage file={part.files.ink} alt={alt} link={link} fullIsPicture={false} />
      </>
    )
  const { ink } = part.files
  return (
    <>
      <Playing key={sound.mediaId} {...{ talk, src, peaks, alt, link }} />
      {forPupil || link || ink.mediaId === '' ? null : (
        <FilmOfTalk inkId={ink.mediaId} name={part.name || t('talk')} />
      )}
    </>
  )
}

/** One that was just made, and lies nowhere yet. @param ms - How long it is. */
export function TalkHere({
  file,
  ms,
  talk,
  alt,
}: {
  file: File
  ms: number
  talk: Talk
  alt: string
}) {
  const src = useAddressOf(file)
  return <Playing talk={talk} src={src} peaks={{ durationMs: ms, peaks: [] }} alt={alt} />
}

/** Its sheet as it was left, for as long as the school has no picture of it. */
export function TalkPicture({ part, alt, link }: PartProps) {
  const { talk, error } = useTalk(part, link)
  if (talk) return <SvgSheet sheet={inkOfTalk(talk).sheets[0]!} alt={alt} link={link} fit="cover" />
  return error ? (
    <Picture file={part.files.ink} alt={alt} size={320} link={link} fit="cover" />
  ) : (
    <RuledLines />
  )
}

function Playing({
  talk,
  src,
  peaks,
  alt,
  link,
}: {
  talk: Talk
  src: string
  peaks: ReturnType<typeof usePeaks>
  alt: string
  link?: string | undefined
}) {
  const [audio] = useState(() => Object.assign(new Audio(), { preload: 'auto', src }))
  const playing = usePlaying(audio)
  useSource(audio, src, playing.on)
  const atStart = playing.at === 0 && !playing.on
  return (
    <Stack gap="near" style={{ flex: 1, minHeight: 260 }}>
      <Replayed
        {...{ talk, alt, link }}
        // Until it plays one sees what it led to.
        ms={() => (atStart ? Infinity : audio.currentTime * 1000)}
        runs={playing.on}
        onTap={playing.toggle}
      />
      <PlayerBar playing={playing} peaks={peaks} play={t('watchTalk')} />
    </Stack>
  )
}

/** What is drawn by a moment, in the frames of the screen while it runs. */
function Replayed({
  talk,
  alt,
  link,
  ms,
  runs,
  onTap,
}: {
  talk: Talk
  alt: string
  link?: string | undefined
  ms: () => number
  runs: boolean
  onTap: () => void
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [pictures] = useState(() => new Pictures(link))
  const screen = useRef<ReplayScreen>(null)
  const now = useRef(ms)
  now.current = ms
  useEffect(() => {
    const made = new ReplayScreen(canvas.current!, talk, pictures)
    screen.current = made
    made.show(now.current())
    return () => made.close()
  }, [talk, pictures])
  useEffect(() => {
    if (!runs) return screen.current?.show(now.current())
    let frame = 0
    const show = () => {
      screen.current?.show(now.current())
      frame = requestAnimationFrame(show)
    }
    show()
    return () => cancelAnimationFrame(frame)
  })
  return <canvas ref={canvas} role="img" aria-label={alt} onClick={onTap} style={SCREEN} />
}

const SCREEN: CSSProperties = {
  ...{ flex: 1, minHeight: 160, width: '100%', cursor: 'pointer', touchAction: 'pan-y' },
}
const MARGIN_PX = 10

/**
 * A sheet as it comes to be, on one canvas: what lies there is painted once, what a hand is drawing
 * above it.
 */
class ReplayScreen {
  readonly #replay: TalkReplay
  readonly #canvas: HTMLCanvasElement
  readonly #above: CanvasRenderingContext2D
  readonly #below: PaintedSheet
  readonly #kept: HTMLCanvasElement
  readonly #watch: ResizeObserver
  readonly #stop: () => void
  readonly #talk: Talk
  #view: Laid = { scale: 0.02, x: 0, y: 0 }
  #ms = 0
  #shown: unknown = null

  constructor(canvas: HTMLCanvasElement, talk: Talk, pictures: Pictures) {
    this.#talk = talk
    this.#replay = new TalkReplay(talk)
    this.#canvas = canvas
    this.#above = canvas.getContext('2d')!
    this.#kept = document.createElement('canvas')
    this.#below = new PaintedSheet(this.#kept.getContext('2d')!, (mediaId) => pictures.get(mediaId))
    this.#watch = new ResizeObserver(() => this.#fit())
    this.#watch.observe(canvas)
    this.#stop = pictures.subscribe(() => this.#again())
    this.#fit()
  }

  show(ms: number): void {
    this.#ms = ms
    const { sheet, growing } = this.#replay.at(ms)
    if (growing.length === 0 && sheet === this.#shown) return
    this.#shown = growing.length === 0 ? sheet : null
    this.#below.show(sheet, this.#view)
    wipe(this.#above)
    this.#above.drawImage(this.#kept, 0, 0)
    if (growing.length === 0) return
    layUnder(this.#above, this.#view)
    this.#above.save()
    onSheetOnly(this.#above, sheet)
    paint(this.#above, growing.flatMap(showThing))
    this.#above.restore()
  }

  close(): void {
    this.#watch.disconnect()
    this.#stop()
  }

  #again(): void {
    this.#below.forget()
    this.#shown = null
    this.show(this.#ms)
  }

  /** The whole sheet, in the middle. */
  #fit(): void {
    const { clientWidth: width, clientHeight: height } = this.#canvas
    const dots = window.devicePixelRatio || 1
    for (const one of [this.#canvas, this.#kept]) {
      one.width = Math.round(width * dots)
      one.height = Math.round(height * dots)
    }
    const sheet = this.#talk.start
    const scale = Math.max(
      0.001,
      Math.min((width - 2 * MARGIN_PX) / sheet.width, (height - 2 * MARGIN_PX) / sheet.height),
    )
    this.#view = {
      scale,
      x: (width - sheet.width * scale) / 2,
      y: (height - sheet.height * scale) / 2,
    }
    this.#again()
  }
}
