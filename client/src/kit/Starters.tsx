import { ScrollView } from 'react-native'
import { BigButton } from './BigButton'
import { Bar } from './layout'
import { space } from './theme'

/** Ways to begin a sentence, to be tapped. */
export function Starters({
  of,
  label,
  row = false,
  onPick,
}: {
  of: readonly string[]
  label?: string
  /** In one line, to be scrolled sideways. */
  row?: boolean
  onPick: (starter: string) => void
}) {
  const buttons = of.map((starter) => (
    <BigButton
      key={starter}
      small
      tone="quiet"
      label={`${starter.trim()}...`}
      onPress={() => onPick(starter)}
    />
  ))
  if (!row)
    return (
      <Bar role="group" aria-label={label} wrap align="stretch">
        {buttons}
      </Bar>
    )
  return (
    <ScrollView
      horizontal
      role="group"
      aria-label={label}
      contentContainerStyle={{ gap: space.near }}
    >
      {buttons}
    </ScrollView>
  )
}
