import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { colours, ONE_WORD, shadow, space, targets } from '../kit/theme'
import { WAYS } from '../parts/ways'
import { t } from './words'
import { Bar } from '../kit/layout'

/** The ledge along the foot of the desk: ways to make stand on it, one tap away. */
export function MakeShelf({ large }: { large: boolean }) {
  const thingPx = large ? 88 : 48
  return (
    <View
      role="region"
      aria-label={t('make')}
      style={{ backgroundColor: colours.paper, paddingTop: space.close }}
    >
      <View
        aria-hidden
        style={[
          {
            position: 'absolute',
            left: 0,
            right: 0,
            top: 6 + thingPx,
            height: 12,
            backgroundColor: colours.rule,
            borderTopWidth: 2,
            borderTopColor: '#CDB999',
          },
          shadow,
        ]}
      />
      <Bar
        align="stretch"
        gap="none"
        style={{
          justifyContent: 'space-evenly',
          width: '100%',
          maxWidth: 640,
          alignSelf: 'center',
        }}
      >
        {WAYS.map(({ label, thing: Thing, begin }) => (
          <Press
            key={label}
            label={label}
            onPress={begin}
            style={{ alignItems: 'center', flex: 1, minHeight: targets.pupil }}
          >
            <View style={{ height: thingPx, justifyContent: 'flex-end' }}>
              <Thing size={thingPx} />
            </View>
            <Text
              variant={large ? 'titleMedium' : 'titleSmall'}
              style={[ONE_WORD, { paddingTop: space.clear, paddingBottom: space.near }]}
            >
              {label}
            </Text>
          </Press>
        ))}
      </Bar>
    </View>
  )
}
