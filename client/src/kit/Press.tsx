import type { ReactNode } from 'react'
import { Pressable, type StyleProp, type ViewStyle } from 'react-native'

type Props = {
  label?: string
  onPress: () => void
  children: ReactNode
  style?: StyleProp<ViewStyle>
  disabled?: boolean
  role?: 'button' | 'link' | 'tab' | 'radio' | 'checkbox' | 'switch'
  selected?: boolean
  testID?: string
}

/** Anything to tap, with a name for those who listen. */
export function Press({
  label,
  onPress,
  children,
  style,
  disabled = false,
  role = 'button',
  selected,
  testID,
}: Props) {
  return (
    <Pressable
      role={role}
      aria-label={label}
      aria-disabled={disabled}
      aria-selected={role === 'tab' ? selected : undefined}
      aria-checked={
        role === 'radio' || role === 'checkbox' || role === 'switch' ? selected : undefined
      }
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={({ pressed }) => [
        style,
        disabled && { opacity: 0.5 },
        pressed && { transform: [{ scale: 0.985 }] },
      ]}
    >
      {children}
    </Pressable>
  )
}
