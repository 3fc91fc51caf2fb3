import { Press } from './Press'
import { DrawnSymbol, type SymbolName } from './DrawnSymbol'
import { colours, targets } from './theme'

/** A symbol to tap with its name for listeners; where space for a word is lacking. */
export function RoundButton({
  label,
  symbol,
  onPress,
  size = targets.pupil,
  colour = colours.ink,
  back = 'transparent',
  disabled = false,
}: {
  label: string
  symbol: SymbolName
  onPress: () => void
  size?: number
  colour?: string
  back?: string
  disabled?: boolean
}) {
  return (
    <Press
      label={label}
      onPress={onPress}
      disabled={disabled}
      style={{
        width: size,
        height: size,
        borderRadius: size,
        backgroundColor: back,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <DrawnSymbol name={symbol} size={size * 0.48} colour={colour} />
    </Press>
  )
}
