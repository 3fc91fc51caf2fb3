import type { FolderLook } from '@nibquill/contract'
import type { ReactNode } from 'react'
import { View, type ViewStyle } from 'react-native'
import Svg, { Path } from 'react-native-svg'
import { DrawnSymbol } from './DrawnSymbol'
import { colours, corners, pigments } from './theme'

/** A drawn folder: coloured spine, its symbol on the front. `open` lifts the front a little. */
export function FolderDrawing({
  folder,
  width,
  chosen = false,
}: {
  folder: Pick<FolderLook, 'symbol' | 'colour'>
  width: number
  chosen?: boolean
}) {
  const height = width * 0.7
  const colour = pigments[folder.colour]
  return (
    <View style={{ width, height }}>
      <Svg width={width} height={height} viewBox="0 0 160 112" aria-hidden>
        <Path
          d="M6 12 q0 -8 8 -8 h42 q5 0 8 5 l6 9 h78 q8 0 8 8 v74 q0 8 -8 8 h-134 q-8 0 -8 -8 z"
          fill="#E9DFC8"
        />
        <Path
          d="M6 36 q0 -8 8 -8 h134 q8 0 8 8 v64 q0 8 -8 8 h-134 q-8 0 -8 -8 z"
          fill="#FFFEFA"
          stroke={chosen ? colour : '#D8CCAE'}
          strokeWidth={chosen ? 4 : 1.5}
        />
        <Path d="M6 36 q0 -8 8 -8 h14 v80 h-14 q-8 0 -8 -8 z" fill={colour} />
      </Svg>
      <View
        style={{
          position: 'absolute',
          left: width * 0.17,
          right: 0,
          top: height * 0.25,
          bottom: 0,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <DrawnSymbol name={folder.symbol} size={width * 0.27} colour={colour} />
      </View>
    </View>
  )
}

/** The tray: a stack that grows with what lies in it. */
export function TrayDrawing({ count, width }: { count: number; width: number }) {
  const sheets = Math.min(5, count)
  return (
    <Svg width={width} height={width * 0.6} viewBox="0 0 100 60" aria-hidden>
      {Array.from({ length: sheets }, (_, i) => (
        <Path
          key={i}
          d={`M${18 + (i % 2) * 3} ${40 - i * 6} h62 l6 6 h-74 z`}
          fill={colours.sheet}
          stroke={colours.ochre}
          strokeWidth={1.6}
          strokeLinejoin="round"
        />
      ))}
      <Path d={TRAY_FRONT} fill={colours.ochre} />
    </Svg>
  )
}

const TRAY_FRONT = 'M6 42 h12 l5 7 h54 l5 -7 h12 v10 q0 5 -5 5 h-78 q-5 0 -5 -5 z'

/** A sheet comes down into the tray and lies on the stack behind its front. */
export function IntoTheStack({ width, children }: { width: number; children: ReactNode }) {
  const height = width * 0.6
  return (
    <View style={{ width, height: height * 1.35, justifyContent: 'flex-end' }}>
      <TrayDrawing count={0} width={width} />
      {[-4, 3].map((degrees) => (
        <View
          key={degrees}
          style={[
            LYING,
            { bottom: height * 0.22, transform: `rotate(${degrees}deg)` },
            { width: width * 0.62, height: width * 0.44 },
          ]}
        />
      ))}
      <View style={[{ position: 'absolute', bottom: height * 0.24, alignSelf: 'center' }, SLIDES]}>
        {children}
      </View>
      <View style={{ position: 'absolute', bottom: 0 }}>
        <Svg width={width} height={height} viewBox="0 0 100 60" aria-hidden>
          <Path d={TRAY_FRONT} fill={colours.ochre} />
        </Svg>
      </View>
    </View>
  )
}

/** What lay there before. */
const LYING = {
  position: 'absolute',
  alignSelf: 'center',
  backgroundColor: colours.sheet,
  borderWidth: 1,
  borderColor: colours.rule,
  borderRadius: corners.sheet,
} as const

/** Still for those who want less motion: the page's own style sees to that. */
const SLIDES = {
  animationKeyframes: {
    from: { transform: 'translateY(-150px) rotate(-7deg)', opacity: 0.2 },
    '70%': { transform: 'translateY(6px) rotate(1deg)', opacity: 1 },
    to: { transform: 'translateY(0) rotate(0)' },
  },
  animationDuration: '700ms',
  animationTimingFunction: 'ease-out',
} as ViewStyle
