import { useRef, type ReactNode } from 'react'
import { Pressable, type StyleProp, type View, type ViewStyle } from 'react-native'
import { useJustAppeared } from './lastTap'

type Props = {
  label?: string
  /** What a press does; where it comes to mean something else, that counts as newly appeared. */
  does?: string
  onPress: () => void
  children: ReactNode
  style?: StyleProp<ViewStyle>
  disabled?: boolean
  role?: 'button' | 'link' | 'tab' | 'radio' | 'checkbox' | 'switch'
  selected?: boolean
  testID?: string
}

/**
 * Anything to tap, with a name for those who listen. What appears where a finger just was does
 * nothing for a second.
 */
export function Press({
  label,
  does,
  onPress,
  children,
  style,
  disabled = false,
  role = 'button',
  selected,
  testID,
}: Props) {
  const place = useRef<View>(null)
  const early = useJustAppeared(place, does)
  return (
    <Pressable
      ref={place}
      role={role}
      aria-label={label}
      aria-disabled={disabled || early}
      aria-selected={role === 'tab' ? selected : undefined}
      aria-checked={
        role === 'radio' || role === 'checkbox' || role === 'switch' ? selected : undefined
      }
      disabled={disabled || early}
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
