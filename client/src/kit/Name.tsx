import { Text } from 'react-native-paper'
import Svg, { Path } from 'react-native-svg'
import { View } from 'react-native'
import { colours, fonts } from './theme'

/** The name, with its nib. */
export function Name({ size = 40 }: { size?: number }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: size * 0.25 }}>
      <Svg width={size * 0.8} height={size * 1.1} viewBox="0 0 32 44" aria-hidden>
        <Path
          d="M16 2 C24 12 28 20 26 28 L16 42 L6 28 C4 20 8 12 16 2 z"
          fill={colours.aubergine}
        />
        <Path d="M16 18 V40" stroke={colours.paper} strokeWidth={1.8} />
        <Path d="M16 15 m-3 0 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0" fill={colours.ochre} />
      </Svg>
      <Text
        role="heading"
        aria-level={1}
        style={{
          fontFamily: fonts.title,
          fontSize: size,
          lineHeight: size * 1.25,
          color: colours.aubergine,
        }}
      >
        Nibquill
      </Text>
    </View>
  )
}
