import { router, type Href } from 'expo-router'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { Bar, Heading } from './layout'
import { Press } from './Press'

import { DrawnSymbol } from './DrawnSymbol'
import { targets } from './theme'
import { t } from './words'

/** The head of a screen one came to from another: the way back, and where one is. */
export function Head({
  title,
  back,
  pupil = false,
  children,
}: {
  title: string
  back: Href
  pupil?: boolean
  children?: ReactNode
}) {
  const size = pupil ? targets.pupil : targets.adult
  return (
    <Bar>
      <Press
        label={t('back')}
        onPress={() => (router.canGoBack() ? router.back() : router.replace(back))}
        style={{ width: size, height: size, justifyContent: 'center' }}
      >
        <DrawnSymbol name="back" size={pupil ? 30 : 24} />
      </Press>
      <View style={{ flex: 1 }}>
        <Heading level={1}>{title}</Heading>
      </View>
      {children}
    </Bar>
  )
}
