import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners, targets } from '../kit/theme'
import { piecesStrings as strings } from '../pieces'

/** Making has one way out on each side: keep it for later, or go on. */
export function MakeHead({
  title,
  onOn,
  step,
}: {
  title: string
  onOn?: () => void
  step?: number
}) {
  return (
    <View
      style={{
        backgroundColor: colours.sheet,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        paddingHorizontal: 8,
        paddingVertical: 6,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
      }}
    >
      <Press
        label={strings.keepForLater}
        onPress={() => router.replace('/desk')}
        style={{
          minHeight: targets.pupil,
          minWidth: targets.pupil,
          flexDirection: 'row',
          gap: 6,
          alignItems: 'center',
          paddingHorizontal: 10,
          maxWidth: 130,
        }}
      >
        <Symbol name="desk" size={26} colour={colours.inkSoft} />
        <Text variant="labelSmall" style={{ color: colours.inkSoft, flexShrink: 1 }}>
          {strings.keepForLater}
        </Text>
      </Press>
      <View style={{ flex: 1, alignItems: 'center' }}>
        <Text role="heading" aria-level={1} variant="titleMedium" style={{ textAlign: 'center' }}>
          {title}
        </Text>
        {step ? <StepDots step={step} /> : null}
      </View>
      {onOn ? (
        <Press
          label={strings.goOn}
          onPress={onOn}
          style={{
            minHeight: targets.pupil,
            flexDirection: 'row',
            gap: 6,
            alignItems: 'center',
            paddingHorizontal: 16,
            borderRadius: corners.button,
            backgroundColor: colours.aubergine,
          }}
        >
          <Text variant="labelLarge" style={{ color: colours.sheet }}>
            {strings.goOn}
          </Text>
          <Symbol name="forward" size={22} colour={colours.sheet} />
        </Press>
      ) : (
        <View style={{ width: 100 }} />
      )}
    </View>
  )
}

function StepDots({ step }: { step: number }) {
  return (
    <View
      aria-label={strings.stepOf(step)}
      role="img"
      style={{ flexDirection: 'row', gap: 6, marginTop: 2 }}
    >
      {[1, 2, 3].map((dot) => (
        <View
          key={dot}
          style={{
            width: dot === step ? 22 : 9,
            height: 9,
            borderRadius: 5,
            backgroundColor: dot <= step ? colours.aubergine : colours.rule,
          }}
        />
      ))}
    </View>
  )
}
