import type { ReactNode } from 'react'
import { Pressable, type StyleProp, type ViewStyle } from 'react-native'
import { colours } from './theme'

type Props = {
  label?: string
  onPress: () => void
  children: ReactNode
  style?: StyleProp<ViewStyle>
  disabled?: boolean
  role?: 'button' | 'link' | 'tab' | 'radio'
  selected?: boolean
  testID?: string
}

/** Anything to tap: a name for those who listen, a ring for those who use keys. */
export function Press({ label, onPress, children, style, disabled = false, role = 'button', selected, testID }: Props) {
  return (
    <Pressable
      role={role}
      aria-label={label}
      aria-disabled={disabled}
      aria-selected={role === 'tab' ? selected : undefined}
      aria-checked={role === 'radio' ? selected : undefined}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={(state) => {
        const focused = Boolean('focused' in state && state.focused)
        return [
          style,
          disabled && { opacity: 0.5 },
          state.pressed && { transform: [{ scale: 0.985 }] },
          focused ? ({ outlineColor: colours.sea, outlineWidth: 3, outlineStyle: 'solid', outlineOffset: 2 } as ViewStyle) : null,
        ]
      }}
    >
      {children}
    </Pressable>
  )
}
