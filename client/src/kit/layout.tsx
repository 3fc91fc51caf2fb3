import type { ReactNode } from 'react'
import { ScrollView, useWindowDimensions, View, type ViewProps, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { colours, corners, shadow, space } from './theme'
import { ToastPlace } from './Toast'
import { useTitle } from './useTitle'

/** `wide` from 1000 px on: a rail, and list beside detail. `tablet` from 600. */
export function useWidth(): { width: number; height: number; wide: boolean; tablet: boolean } {
  const { width, height } = useWindowDimensions()
  return { width, height, wide: width >= 1000, tablet: width >= 600 }
}

/** A page that scrolls, with its main action fixed at the foot, in reach of a thumb. */
export function Page({
  children,
  foot,
  max,
  sides = false,
}: {
  children: ReactNode
  foot?: ReactNode
  max?: number
  /** What is in it stands side by side where the screen is wide (`Sides`). */
  sides?: boolean
}) {
  const { wide } = useWidth()
  const width = max ?? (sides && wide ? 1120 : 760)
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      {/* Reached by the keyboard even where nothing in it can be tapped. */}
      <ScrollView
        tabIndex={0}
        contentContainerStyle={{
          padding: space.far,
          paddingBottom: space.off,
          gap: space.clear,
          width: '100%',
          maxWidth: width,
          alignSelf: 'center',
        }}
      >
        {children}
      </ScrollView>
      <ToastPlace />
      {foot ? <Foot max={width}>{foot}</Foot> : null}
    </View>
  )
}

export function Foot({ children, max = 760 }: { children: ReactNode; max?: number }) {
  return (
    <View
      style={{ backgroundColor: colours.sheet, borderTopWidth: 1, borderTopColor: colours.rule }}
    >
      <Stack
        gap="near"
        style={{ padding: space.apart, width: '100%', maxWidth: max, alignSelf: 'center' }}
      >
        {children}
      </Stack>
    </View>
  )
}

/** A screen's or a section's heading; the screen's own names the page as well. */
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
  useTitle(level === 1 ? children : '')
  return (
    <Bar align="baseline" between gap="apart">
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
    </Bar>
  )
}

type Space = keyof typeof space
type LayoutProps = ViewProps & { gap?: Space; style?: ViewStyle }

/** Things one under the other. */
export function Stack({ gap = 'apart', style, ...view }: LayoutProps) {
  return <View {...view} style={[{ gap: space[gap] }, style]} />
}

/** Things side by side, on one line unless they may wrap. `between`: pushed to both ends. */
export function Bar({
  gap = 'near',
  align = 'center',
  wrap = false,
  between = false,
  style,
  ...view
}: LayoutProps & { align?: ViewStyle['alignItems']; wrap?: boolean; between?: boolean }) {
  return (
    <View
      {...view}
      style={[
        { flexDirection: 'row', alignItems: align, gap: space[gap] },
        wrap && { flexWrap: 'wrap', maxWidth: '100%' },
        between && { justifyContent: 'space-between' },
        style,
      ]}
    />
  )
}

/** What belongs together: beside each other where there is room, else one under the other. */
export function Split({ beside, gap = 'none', style, ...view }: LayoutProps & { beside: boolean }) {
  return (
    <View
      {...view}
      style={[{ flexDirection: beside ? 'row' : 'column', gap: space[gap] }, style]}
    />
  )
}

/** Two halves of a page: beside each other on a wide screen, else one after the other. */
export function Sides({ left, right }: { left: ReactNode; right: ReactNode }) {
  const { wide } = useWidth()
  const half: ViewStyle = wide ? { flex: 1, minWidth: 0 } : {}
  return (
    <Split beside={wide} gap="clear" style={{ alignItems: wide ? 'flex-start' : 'stretch' }}>
      <Stack gap="clear" style={half}>
        {left}
      </Stack>
      <Stack gap="clear" style={half}>
        {right}
      </Stack>
    </Split>
  )
}

/** Boxes of one kind: in turn left and right where the screen is wide. */
export function SidesInTurn({ children }: { children: readonly ReactNode[] }) {
  const { wide } = useWidth()
  if (!wide) return children
  const half = (side: 0 | 1) => children.filter((_, i) => i % 2 === side)
  return <Sides left={half(0)} right={half(1)} />
}

/** A white sheet that lies on the page: one matter, or one of many of its kind. */
export function Tile({ gap = 'apart', style, ...view }: LayoutProps) {
  return <View {...view} style={[TILE, shadow, { gap: space[gap] }, style]} />
}
const TILE: ViewStyle = {
  backgroundColor: colours.sheet,
  borderRadius: corners.button,
  padding: space.clear,
}

/** Things of one width, as many in a row as fit. */
export function Grid({ children }: { children: ReactNode }) {
  return (
    <Bar wrap align="stretch" gap="clear">
      {children}
    </Bar>
  )
}
