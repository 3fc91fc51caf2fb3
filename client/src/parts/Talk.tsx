import type { TalkPart } from '@nibquill/contract'
import { View, type ViewStyle } from 'react-native'
import Svg, { Circle, Path } from 'react-native-svg'
import { laterFrom } from '../kit/later'
import { RuledLines } from '../kit/RuledLines'
import { colours, space } from '../kit/theme'
import { Picture } from '../media/Picture'
import { InWords } from './InWords'
import type { PartViewProps } from './partKinds'

/** What draws is fetched where it is played, or where the school has no picture yet. */
const played = laterFrom(() => import('./TalkPlayer'), <RuledLines />)
const TalkPicture = played('TalkPicture')
const TalkStagePlayer = played('TalkStagePlayer')

/** The sheet as it was left, and a mouth in its corner: somebody talks about it. */
export function TalkSheet({
  part,
  alt,
  link,
  size,
}: PartViewProps<TalkPart> & { size: 320 | 960 }) {
  const { ink } = part.files
  const here = ink.state === 'arrived'
  return (
    <View
      {...(alt ? { role: 'img' as const, 'aria-label': alt } : { 'aria-hidden': true })}
      style={{ flex: 1, backgroundColor: colours.desk }}
    >
      {here ? (
        <TalkPicture part={part} alt="" {...(link ? { link } : {})} />
      ) : (
        <Picture file={ink} alt="" size={size} fit="cover" {...(link ? { link } : {})} />
      )}
      <View style={CORNER}>
        <Svg width="100%" height="100%" viewBox="0 0 40 40" aria-hidden>
          <Circle cx={20} cy={20} r={18} fill={colours.sheet} opacity={0.92} />
          <Path
            d="M9 20 q0 -5 5 -5 l5 -4 v18 l-5 -4 q-5 0 -5 -5 z"
            fill={colours.seaTint}
            stroke={colours.ink}
            strokeWidth={2}
            strokeLinejoin="round"
          />
          <Path
            d="M23 15 q4 5 0 10 M27 11.500 q7 8.500 0 17"
            fill="none"
            stroke={colours.sea}
            strokeWidth={2.5}
            strokeLinecap="round"
          />
        </Svg>
      </View>
    </View>
  )
}
const CORNER: ViewStyle = {
  ...{ position: 'absolute', left: '3%', bottom: '3%', width: '24%', aspectRatio: 1 },
  ...{ minWidth: 26, maxWidth: 72 },
}

/** To be played, stroke by stroke. */
export function TalkStage({ part, alt, link }: PartViewProps<TalkPart>) {
  return (
    <View style={{ flex: 1, gap: space.near }}>
      <TalkStagePlayer part={part} alt={alt} {...(link ? { link } : {})} />
      <InWords part={part} />
    </View>
  )
}
