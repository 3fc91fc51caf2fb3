import type { ReactNode } from 'react'
import { ScrollView, useWindowDimensions, View } from 'react-native'
import { Text } from 'react-native-paper'
import { colours } from './theme'

/** `wide` from 1000 px on: a rail, and list beside detail. `tablet` from 600. */
export function useWidth(): { width: number; height: number; wide: boolean; tablet: boolean } {
  const { width, height } = useWindowDimensions()
  return { width, height, wide: width >= 1000, tablet: width >= 600 }
}

/** A page that scrolls, with its main action fixed at the foot, in reach of a thumb. */
export function Page({
  children,
  foot,
  max = 760,
}: {
  children: ReactNode
  foot?: ReactNode
  max?: number
}) {
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      {/* Reached by the keyboard even where nothing in it can be tapped. */}
      <ScrollView
        tabIndex={0}
        contentContainerStyle={{
          padding: 20,
          paddingBottom: 32,
          gap: 16,
          width: '100%',
          maxWidth: max,
          alignSelf: 'center',
        }}
      >
        {children}
      </ScrollView>
      {foot ? <Foot max={max}>{foot}</Foot> : null}
    </View>
  )
}

export function Foot({ children, max = 760 }: { children: ReactNode; max?: number }) {
  return (
    <View
      style={{ backgroundColor: colours.sheet, borderTopWidth: 1, borderTopColor: colours.rule }}
    >
      <View style={{ padding: 12, gap: 10, width: '100%', maxWidth: max, alignSelf: 'center' }}>
        {children}
      </View>
    </View>
  )
}

/** A screen's or a section's heading. */
export function Heading({
  children,
  level = 2,
  count,
  id,
}: {
  children: string
  level?: 1 | 2 | 3
  count?: number
  id?: string
}) {
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'baseline',
        justifyContent: 'space-between',
        gap: 12,
      }}
    >
      <Text
        role="heading"
        aria-level={level}
        nativeID={id}
        variant={level === 1 ? 'headlineLarge' : 'headlineSmall'}
        style={{ flexShrink: 1 }}
      >
        {children}
      </Text>
      {count === undefined ? null : (
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {count}
        </Text>
      )}
    </View>
  )
}

/** Things of one width, as many in a row as fit. */
export function Grid({ children }: { children: ReactNode }) {
  return <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 18 }}>{children}</View>
}
