import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'

/** A tool on the mat: its sign, and its word below. */
export function Tool({
  symbol,
  label,
  disabled = false,
  onPress,
}: {
  symbol: SymbolName
  label: string
  disabled?: boolean
  onPress: () => void
}) {
  return (
    <Press
      label={label}
      disabled={disabled}
      onPress={onPress}
      style={{
        ...{ minWidth: 64, minHeight: targets.pupil, paddingHorizontal: space.tight },
        ...{ alignItems: 'center', justifyContent: 'center', borderRadius: corners.button },
        backgroundColor: 'rgba(0,0,0,0.2)',
      }}
    >
      <DrawnSymbol name={symbol} size={24} colour={colours.sheet} />
      <Text variant="labelSmall" style={{ color: colours.sheet, textAlign: 'center' }}>
        {label}
      </Text>
    </Press>
  )
}
