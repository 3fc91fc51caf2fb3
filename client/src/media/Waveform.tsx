import { FULL_PEAK, highest } from '@nibquill/core/sound/bars'
import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import { View } from 'react-native'
import Svg, { Rect } from 'react-native-svg'
import { colours } from '../kit/theme'
import { t } from './words'

const HEIGHT = 44
const BAR = { width: 3, gap: 2 }
/** So that silence is a line, not nothing. */
const LEAST = 2
const STEP_SECONDS = 5

/** What was said as bars, the heard ones in ink: to be tapped, dragged along or moved by keys. */
export function Waveform({
  peaks,
  at,
  seconds,
  onSeek,
}: {
  /** None: only a line. */
  peaks: readonly number[]
  at: number
  seconds: number
  onSeek: (seconds: number) => void
}) {
  const [width, setWidth] = useState(0)
  const count = Math.max(1, Math.floor(width / (BAR.width + BAR.gap)))
  const bars = width === 0 ? [] : spread(peaks, count)
  const heard = (at / seconds) * count
  const seek = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const share = (event.clientX - box.left) / box.width
    onSeek(Math.min(1, Math.max(0, share)) * seconds)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const to = KEYS[event.key]?.(at, seconds)
    if (to === undefined) return
    event.preventDefault()
    // Whatever the screen does with these keys, here they are for this.
    event.stopPropagation()
    onSeek(Math.min(seconds, Math.max(0, to)))
  }
  return (
    <View onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}>
      <div
        role="slider"
        tabIndex={0}
        aria-label={t('place')}
        aria-valuemin={0}
        aria-valuemax={Math.round(seconds)}
        aria-valuenow={Math.round(at)}
        aria-valuetext={t('placeOf', { at: Math.round(at), of: Math.round(seconds) })}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          seek(event)
        }}
        onPointerMove={(event) => {
          if (event.currentTarget.hasPointerCapture(event.pointerId)) seek(event)
        }}
        onKeyDown={onKeyDown}
        style={{ height: HEIGHT, cursor: 'pointer', touchAction: 'pan-y' }}
      >
        <Svg width={width} height={HEIGHT} aria-hidden>
          {bars.map((peak, i) => {
            const high = Math.max(LEAST, (peak / FULL_PEAK) * HEIGHT)
            return (
              <Rect
                key={i}
                x={i * (BAR.width + BAR.gap)}
                y={(HEIGHT - high) / 2}
                width={BAR.width}
                height={high}
                rx={BAR.width / 2}
                fill={i < heard ? colours.aubergine : BARS}
              />
            )
          })}
        </Svg>
      </div>
    </View>
  )
}
/** Three to one on paper and on a sheet: they say where one is. */
const BARS = '#9A8B75'

/** So many bars, whether there are more peaks or fewer. */
function spread(peaks: readonly number[], count: number): number[] {
  if (peaks.length === 0) return Array.from({ length: count }, () => 0)
  if (peaks.length >= count) return highest(peaks, count)
  return Array.from({ length: count }, (_, i) => peaks[Math.floor((i * peaks.length) / count)]!)
}

const KEYS: Partial<Record<string, (at: number, seconds: number) => number>> = {
  ArrowLeft: (at) => at - STEP_SECONDS,
  ArrowDown: (at) => at - STEP_SECONDS,
  ArrowRight: (at) => at + STEP_SECONDS,
  ArrowUp: (at) => at + STEP_SECONDS,
  Home: () => 0,
  End: (_at, seconds) => seconds,
}

const LIVE = { width: 300, height: 72, most: 60 }
/** How loud it is just now, and was a moment ago. @param levels - 0 to 1, the latest last. */
export function Bars({ levels }: { levels: readonly number[] }) {
  const step = LIVE.width / LIVE.most
  return (
    <Svg width={LIVE.width} height={LIVE.height} aria-hidden>
      {levels.slice(-LIVE.most).map((level, i, all) => {
        const high = Math.max(LEAST, Math.min(1, level * 1.4) * LIVE.height)
        return (
          <Rect
            key={i}
            x={LIVE.width - (all.length - i) * step}
            y={(LIVE.height - high) / 2}
            width={step - 2}
            height={high}
            rx={(step - 2) / 2}
            fill={colours.aubergine}
          />
        )
      })}
    </Svg>
  )
}
