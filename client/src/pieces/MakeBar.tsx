import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners } from '../kit/theme'
import { WAYS } from '../parts/partKinds'
import { strings } from './strings'

/** Stands at the foot of the desk: making starts with one tap, no menu first. */
export function MakeBar() {
  return (
    <View
      role="region"
      aria-label={strings.make}
      style={{ backgroundColor: colours.sheet, borderTopWidth: 1, borderTopColor: colours.rule }}
    >
      <View
        style={{
          flexDirection: 'row',
          gap: 10,
          padding: 12,
          width: '100%',
          maxWidth: 640,
          alignSelf: 'center',
        }}
      >
        {WAYS.map(({ label, symbol, colour, href }) => (
          <Press
            key={label}
            label={label}
            onPress={() => router.push(href)}
            style={{
              // As wide as its word needs, and a share of what is left.
              flexGrow: 1,
              flexShrink: 1,
              minHeight: 64,
              borderRadius: corners.button,
              backgroundColor: colour,
              flexDirection: 'row',
              gap: 10,
              paddingHorizontal: 12,
              alignItems: 'center',
              justifyContent: 'center',
            }}
          >
            <Symbol name={symbol} size={32} colour={colours.sheet} />
            <Text variant="titleMedium" style={{ color: colours.sheet, flexShrink: 1 }}>
              {label}
            </Text>
          </Press>
        ))}
      </View>
    </View>
  )
}
