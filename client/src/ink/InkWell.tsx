import { colourOf, type Ink } from '@nibquill/core/ink/inks'
import type { ReactNode } from 'react'
import { Text } from 'react-native-paper'
import Svg, { Circle, Path } from 'react-native-svg'
import { Press } from '../kit/Press'
import { targets } from '../kit/theme'
import { fullNameOf, ROLL } from './look'

/** A glass with ink in it. */
export function InkWell({
  ink,
  held,
  dashed = false,
  onPress,
  label,
}: {
  ink: Ink
  held: boolean
  dashed?: boolean
  onPress: () => void
  label?: string
}) {
  return (
    <Press
      label={label ?? fullNameOf(ink)}
      role="radio"
      selected={held}
      onPress={onPress}
      style={{
        width: targets.pupil,
        height: targets.pupil - 4,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <Svg width={50} height={50} viewBox="0 0 50 50" aria-hidden>
        <Circle cx={25} cy={25} r={19} fill={colourOf(ink)} stroke="#EFE6D2" strokeWidth={3} />
        <Path
          d="M13 20 q6 -8 14 -8"
          stroke="#FFFFFF"
          strokeWidth={2.5}
          opacity={0.6}
          fill="none"
          strokeLinecap="round"
        />
        {held ? (
          <Circle
            cx={25}
            cy={25}
            r={23}
            fill="none"
            stroke="#FFFFFF"
            strokeWidth={3}
            strokeDasharray={dashed ? '5 4' : undefined}
          />
        ) : null}
        {held ? (
          <Path
            d="M18 25 l5 6 l10 -12"
            fill="none"
            stroke={ink[0] === 'chalk' || ink[0] === 'straw' ? '#2B2118' : '#FFFFFF'}
            strokeWidth={4}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        ) : null}
      </Svg>
    </Press>
  )
}

/** A vessel beside the wells, with its word below. */
export function Beside({
  words,
  label,
  onPress,
  children,
}: {
  words: string
  label: string
  onPress: () => void
  children: ReactNode
}) {
  return (
    <Press
      label={label}
      onPress={onPress}
      style={{ minWidth: 50, minHeight: targets.pupil, alignItems: 'center' }}
    >
      {children}
      <Text variant="labelSmall" style={{ color: ROLL.words }}>
        {words}
      </Text>
    </Press>
  )
}
