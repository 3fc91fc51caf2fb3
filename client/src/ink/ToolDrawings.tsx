import Svg, { Circle, Path, Rect } from 'react-native-svg'
import { colours } from '../kit/theme'
import type { Tool } from './hold'

type Props = { colour: string }
const LINE = { stroke: colours.ink, strokeWidth: 2, strokeLinejoin: 'round' } as const
const PX = { width: 44, height: 84, style: { flexShrink: 0 } }

/** A dip pen: wood, and a nib that wears the ink. */
const Nib = ({ colour }: Props) => (
  <Svg {...PX} viewBox="0 0 44 84" aria-hidden>
    <Path d="M15 36 h14 v48 h-14 z" fill="#A5713F" {...LINE} />
    <Path d="M14 30 h16 v7 h-16 z" fill="#D9C9A8" {...LINE} />
    <Path d="M22 2 l8 20 l-2 9 h-12 l-2 -9 z" fill={colour} {...LINE} />
    <Path d="M22 6 v14" stroke={colours.sheet} strokeWidth={1.5} />
    <Circle cx={22} cy={21} r={2} fill={colours.sheet} />
  </Svg>
)

/** Cut paper, its upper edge torn. */
const Patch = ({ colour }: Props) => (
  <Svg {...PX} viewBox="0 0 44 84" aria-hidden>
    <Path
      d="M6 16 l6 -8 l7 6 l7 -10 l6 9 l6 -3 v74 h-32 z"
      fill={colour}
      {...LINE}
      strokeDasharray="5 3"
    />
  </Svg>
)

const Ruler = () => (
  <Svg {...PX} viewBox="0 0 44 84" aria-hidden>
    <Rect x={10} y={6} width={24} height={80} fill="#E3C98F" {...LINE} />
    {Array.from({ length: 8 }, (_, i) => (
      <Path
        key={i}
        d={`M10 ${14 + i * 8} h${i % 2 === 0 ? 12 : 7}`}
        stroke={colours.ink}
        strokeWidth={1.5}
      />
    ))}
  </Svg>
)

const Rubber = () => (
  <Svg {...PX} viewBox="0 0 44 84" aria-hidden>
    <Path d="M10 20 q0 -10 12 -12 q12 2 12 12 v20 h-24 z" fill="#E3A9A3" {...LINE} />
    <Path d="M9 34 h26 v50 h-26 z" fill={colours.sea} {...LINE} />
    <Path d="M9 44 h26" stroke={colours.sheet} strokeWidth={3} />
  </Svg>
)

export const TOOL_DRAWINGS: Record<Tool, (props: Props) => React.ReactElement> = {
  nib: Nib,
  patch: Patch,
  ruler: Ruler,
  rubber: Rubber,
}
