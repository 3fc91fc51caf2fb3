import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { colours, shadow, targets } from '../kit/theme'
import { WAYS } from '../parts/ways'
import { piecesStrings as strings } from '../pieces'

const THING_PX = 58

/** The ledge along the foot of the desk: ways to make stand on it, one tap away. */
export function MakeShelf() {
  return (
    <View
      role="region"
      aria-label={strings.make}
      style={{ backgroundColor: colours.paper, paddingTop: 6 }}
    >
      <View
        aria-hidden
        style={[
          {
            position: 'absolute',
            left: 0,
            right: 0,
            top: 6 + THING_PX,
            height: 12,
            backgroundColor: colours.rule,
            borderTopWidth: 2,
            borderTopColor: '#CDB999',
          },
          shadow,
        ]}
      />
      <View
        style={{
          flexDirection: 'row',
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
            style={{ alignItems: 'center', minWidth: 88, minHeight: targets.pupil }}
          >
            <View style={{ height: THING_PX, justifyContent: 'flex-end' }}>
              <Thing size={THING_PX} />
            </View>
            <Text variant="titleMedium" style={{ paddingTop: 18, paddingBottom: 8 }}>
              {label}
            </Text>
          </Press>
        ))}
      </View>
    </View>
  )
}
