import type { VoicePart } from '@nibquill/contract'
import { FULL_PEAK, highest } from '@nibquill/core/sound/bars'
import { View, type ViewStyle } from 'react-native'
import Svg, { Path, Rect } from 'react-native-svg'
import { Stack } from '../kit/layout'
import { colours, corners, space } from '../kit/theme'
import { Player } from '../media/Player'
import { usePeaks } from '../media/usePeaks'
import { InWords } from './InWords'
import type { PartViewProps } from './partKinds'

const BARS = 17
/** Until what was said has been looked through. */
const GUESSED = Array.from({ length: BARS }, (_, i) => 0.35 + 0.3 * Math.sin(i * 1.7) ** 2)
const BOX = { width: 100, height: 76 }

/** What was said, as a sheet among others: a mouth of paper that speaks, and its own bars. */
export function VoiceSheet({ part, alt, link }: PartViewProps<VoicePart>) {
  const peaks = usePeaks(part.files.sound, link)
  const bars = peaks ? highest(peaks.peaks, BARS).map((peak) => peak / FULL_PEAK) : GUESSED
  const step = 62 / bars.length
  return (
    <View
      {...(alt ? { role: 'img' as const, 'aria-label': alt } : { 'aria-hidden': true })}
      style={{ flex: 1, backgroundColor: colours.seaTint }}
    >
      <Svg
        width="100%"
        height="100%"
        viewBox={`0 0 ${BOX.width} ${BOX.height}`}
        preserveAspectRatio="xMidYMid meet"
        aria-hidden
      >
        <Path
          d="M8 38 q0 -9 9 -9 l8 -7 v32 l-8 -7 q-9 0 -9 -9 z"
          fill={colours.sheet}
          stroke={colours.ink}
          strokeWidth={1.6}
          strokeLinejoin="round"
        />
        {bars.map((bar, i) => {
          const high = Math.max(2, bar * 44)
          return (
            <Rect
              key={i}
              x={31 + i * step}
              y={(BOX.height - high) / 2}
              width={step * 0.6}
              height={high}
              rx={step * 0.3}
              fill={colours.sea}
            />
          )
        })}
      </Svg>
    </View>
  )
}

/** To be heard. */
export function VoiceStage({ part, alt, link }: PartViewProps<VoicePart>) {
  return (
    <Stack gap="clear" style={STAGE}>
      <View aria-hidden style={{ height: 180, borderRadius: corners.sheet, overflow: 'hidden' }}>
        <VoiceSheet part={part} alt={alt} {...(link ? { link } : {})} />
      </View>
      <Player file={part.files.sound} link={link} heard={part.heard} />
      <InWords part={part} />
    </Stack>
  )
}
const STAGE: ViewStyle = {
  ...{ width: '100%', maxWidth: 560, alignSelf: 'center', padding: space.clear },
  ...{ backgroundColor: colours.sheet, borderRadius: corners.button },
}
