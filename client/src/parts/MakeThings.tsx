import Svg, { Circle, Path, Rect } from 'react-native-svg'
import { colours } from '../kit/theme'

/** Things to make with, as they stand on the shelf: their feet at the lower edge. */
type ThingProps = { size: number }
const LINE = { stroke: colours.ink, strokeWidth: 3, strokeLinejoin: 'round' } as const

export const Camera = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path
      d="M8 22 q0 -4 4 -4 h8 l4 -8 h16 l4 8 h8 q4 0 4 4 v38 q0 2.500 -2.500 2.500 h-43 q-2.500 0 -2.500 -2.500 z"
      fill={colours.sheet}
      {...LINE}
    />
    <Circle cx={32} cy={40} r={13} fill={colours.seaTint} {...LINE} />
    <Circle cx={32} cy={40} r={6} fill={colours.sea} />
  </Svg>
)

export const RuledPage = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path d="M12 4 h30 l10 10 v48.500 h-40 z" fill={colours.sheet} {...LINE} />
    <Path d="M42 4 v10 h10" fill="none" {...LINE} />
    <Path
      d="M19 26 q4 -6 8 0 t8 0 t8 -1"
      fill="none"
      stroke={colours.sea}
      strokeWidth={3}
      strokeLinecap="round"
    />
    {[36, 45, 54].map((y) => (
      <Path key={y} d={`M19 ${y} h26`} stroke={colours.rule} strokeWidth={3} />
    ))}
  </Svg>
)

export const Basket = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path d="M16 32 q0 -24 16 -24 t16 24" fill="none" {...LINE} />
    <Rect x={20} y={20} width={22} height={20} rx={2} fill={colours.verdigrisTint} {...LINE} />
    <Path d="M4 32 h56 l-6 30.500 h-44 z" fill={colours.desk} {...LINE} />
    <Path
      d="M8 42 h48 M10 52 h44 M20 34 l3 28 M32 34 v28 M44 34 l-3 28"
      fill="none"
      stroke={colours.ochre}
      strokeWidth={2}
    />
  </Svg>
)

/** A pot of pens, each of its own length. */
export const PenPot = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path d="M17 30 v-17 l4 -8 l4 8 v17" fill={colours.clay} {...LINE} />
    <Path d="M28 30 v-12 l4 -7 l4 7 v12" fill={colours.ochre} {...LINE} />
    <Path d="M39 30 v-20 l4 -8 l4 8 v20" fill={colours.verdigris} {...LINE} />
    <Path d="M11 30 h42 l-4 32.500 h-34 z" fill={colours.sheet} {...LINE} />
    <Path d="M13 40 h38 M14 46 h36" stroke={colours.rule} strokeWidth={3} fill="none" />
  </Svg>
)

/** A trumpet to speak through, on its foot. */
export const SpeakingTrumpet = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path d="M20 44 h14 l3 18.500 h-20 z" fill={colours.desk} {...LINE} />
    <Path d="M8 28 l8 -4 l32 -16 v44 l-32 -14 l-8 -3 z" fill={colours.clayTint} {...LINE} />
    <Path d="M48 8 q9 22 0 44 q-9 -22 0 -44 z" fill={colours.clay} {...LINE} />
  </Svg>
)

/** A pen that leaves a line, and says something meanwhile. */
export const TalkingPen = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path
      d="M24 6 h32 q4 0 4 4 v18 q0 4 -4 4 h-13 l-9 9 v-9 h-10 q-4 0 -4 -4 v-18 q0 -4 4 -4 z"
      fill={colours.seaTint}
      {...LINE}
    />
    <Path
      d="M28 16 q4 -5 8 0 t8 0 t8 0 M28 24 q4 -4 8 0 t8 0"
      fill="none"
      stroke={colours.sea}
      strokeWidth={3}
      strokeLinecap="round"
    />
    <Path d="M6 22 l8 -4 l14 28 l-1 12 l-9 -7 z" fill={colours.ochreTint} {...LINE} />
    <Path d="M18 51 l10 -5 l-1 12 z" fill={colours.ink} {...LINE} />
    <Path
      d="M28 60 q8 -6 15 -1 t15 -2"
      fill="none"
      stroke={colours.clay}
      strokeWidth={4}
      strokeLinecap="round"
    />
  </Svg>
)

/** A lens on three legs, looking along. */
export const FilmCamera = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Path d="M28 38 l-14 24.500 M30 38 v24.500 M32 38 l14 24.500" fill="none" {...LINE} />
    <Path d="M44 18 l16 -7 v28 l-16 -7 z" fill={colours.clayTint} {...LINE} />
    <Rect x={6} y={10} width={38} height={30} rx={4} fill={colours.sheet} {...LINE} />
    <Circle cx={18} cy={25} r={7} fill={colours.ochreTint} {...LINE} />
    <Circle cx={33} cy={25} r={5} fill={colours.ochre} {...LINE} />
  </Svg>
)

/** Two rings that hold each other. */
export const Rings = ({ size }: ThingProps) => (
  <Svg width={size} height={size} viewBox="0 0 64 64" aria-hidden>
    <Circle cx={22} cy={40} r={16} fill="none" stroke={colours.ink} strokeWidth={12} />
    <Circle cx={22} cy={40} r={16} fill="none" stroke={colours.ochreTint} strokeWidth={6} />
    <Circle cx={42} cy={40} r={16} fill="none" stroke={colours.ink} strokeWidth={12} />
    <Circle cx={42} cy={40} r={16} fill="none" stroke={colours.seaTint} strokeWidth={6} />
    <Path d="M32 27.500 a16 16 0 0 1 5 7" fill="none" stroke={colours.ochreTint} strokeWidth={6} />
  </Svg>
)
