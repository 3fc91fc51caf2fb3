import Svg, { Path } from 'react-native-svg'
import { colours } from './theme'
import { SYMBOLS, type SymbolName } from './symbols.generated'

export type { SymbolName }

/** A drawn sign; always beside a word or inside something that has a name. */
export function Symbol({
  name,
  size = 24,
  colour = colours.ink,
}: {
  name: SymbolName
  size?: number
  colour?: string
}) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path d={SYMBOLS[name]} fill={colour} />
    </Svg>
  )
}
