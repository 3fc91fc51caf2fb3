import { router } from 'expo-router'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { t } from './words'
import { Bar } from '../kit/layout'

/** Making is full screen: kept for later at its head, gone on with at its foot. */
export function MakeHead({
  title,
  step,
  middle,
  end,
}: {
  title: string
  /** Which of the last steps, from 1. */
  step?: { number: number; of: number }
  /** In the place of the title, which is then heard only. */
  middle?: ReactNode
  /** The way on, where the foot holds what one works with. */
  end?: ReactNode
}) {
  return (
    <Bar
      gap="close"
      style={{
        backgroundColor: colours.sheet,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        paddingHorizontal: space.near,
        paddingVertical: space.close,
      }}
    >
      <Press
        label={t('keepForLater')}
        onPress={() => router.replace('/desk')}
        style={{
          minHeight: targets.pupil,
          width: SIDE_PX,
          flexDirection: 'row',
          gap: space.close,
          alignItems: 'center',
          paddingHorizontal: space.near,
        }}
      >
        <DrawnSymbol name="desk" size={26} colour={colours.inkSoft} />
        <Text variant="labelSmall" style={{ color: colours.inkSoft, flexShrink: 1 }}>
          {t('keepForLater')}
        </Text>
      </Press>
      <View style={{ flex: 1, alignItems: 'center' }}>
        <Text
          role="heading"
          aria-level={1}
          variant="titleMedium"
          style={middle ? HEARD_ONLY : { textAlign: 'center' }}
        >
          {title}
        </Text>
        {middle}
        {step && step.of > 1 ? <StepDots {...step} /> : null}
      </View>
      <View style={{ width: SIDE_PX, alignItems: 'flex-end' }}>{end}</View>
    </Bar>
  )
}

const HEARD_ONLY = { position: 'absolute', width: 1, height: 1, overflow: 'hidden' } as const
/** As wide on the right as on the left, so that the title stands in the middle. */
const SIDE_PX = 104

function StepDots({ number, of }: { number: number; of: number }) {
  return (
    <Bar
      aria-label={t('stepOf', { number, of })}
      role="img"
      align="stretch"
      gap="close"
      style={{ marginTop: space.hair }}
    >
      {Array.from({ length: of }, (_, i) => i + 1).map((dot) => (
        <View
          key={dot}
          style={{
            width: dot === number ? 22 : 9,
            height: 9,
            borderRadius: 5,
            backgroundColor: dot <= number ? colours.aubergine : colours.rule,
          }}
        />
      ))}
    </Bar>
  )
}
