import type { Peg as PegLook } from '@nibquill/contract'
import { View } from 'react-native'
import { DrawnSymbol } from './DrawnSymbol'
import { colours, pigments, shadow } from './theme'

/** A round coat-peg: a pupil's symbol on their colour. */
export function Peg({ peg, size = 48 }: { peg: PegLook; size?: number }) {
  const rim = Math.max(2, size * 0.05)
  return (
    <View
      style={[
        {
          width: size,
          height: size,
          borderRadius: size,
          backgroundColor: colours.sheet,
          padding: rim,
        },
        shadow,
      ]}
    >
      <View
        style={{
          flex: 1,
          borderRadius: size,
          backgroundColor: pigments[peg.colour],
          alignItems: 'center',
          justifyContent: 'center',
          borderBottomWidth: size * 0.06,
          borderBottomColor: 'rgba(0,0,0,0.18)',
        }}
      >
        <DrawnSymbol name={peg.symbol} size={size * 0.52} colour={colours.sheet} />
      </View>
    </View>
  )
}
