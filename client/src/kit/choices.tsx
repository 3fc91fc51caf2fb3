import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useTargetPx } from './forPupil'
import { Press } from './Press'
import { DrawnSymbol, type SymbolName } from './DrawnSymbol'
import { colours, corners, space, targets } from './theme'
import { Stack, Bar } from './layout'

type Choice<T> = { value: T; label: string; symbol?: SymbolName }
/** One of a few, all in sight. */
export function Choices<T extends string | number | boolean | null>({
  label,
  options,
  value,
  onChange,
  hidden = false,
}: {
  label: string
  options: readonly Choice<T>[]
  value: T
  onChange: (value: T) => void
  /** The label is for listeners only. */
  hidden?: boolean
}) {
  return (
    <Stack gap="close">
      {hidden ? null : (
        <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
          {label}
        </Text>
      )}
      <Bar role="radiogroup" aria-label={label} wrap align="stretch" gap="close">
        {options.map((option) => (
          <Chip
            key={String(option.value)}
            role="radio"
            option={option}
            chosen={option.value === value}
            onPress={() => onChange(option.value)}
          />
        ))}
      </Bar>
    </Stack>
  )
}

/** Any number of a few. */
export function Several<T extends string>({
  label,
  options,
  values,
  onChange,
  error,
}: {
  label: string
  options: readonly Choice<T>[]
  values: readonly T[]
  onChange: (values: T[]) => void
  error?: string | undefined
}) {
  const toggle = (value: T) => {
    const chosen = new Set(values)
    if (!chosen.delete(value)) chosen.add(value)
    onChange(options.map((option) => option.value).filter((one) => chosen.has(one)))
  }
  return (
    <Stack gap="close">
      <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
        {label}
      </Text>
      <Bar role="group" aria-label={label} wrap align="stretch" gap="close">
        {options.map((option) => (
          <Chip
            key={option.value}
            role="checkbox"
            option={option}
            chosen={values.includes(option.value)}
            onPress={() => toggle(option.value)}
          />
        ))}
      </Bar>
      {error ? (
        <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
          {error}
        </Text>
      ) : null}
    </Stack>
  )
}

function Chip<T>({
  option,
  chosen,
  onPress,
  role,
}: {
  option: Choice<T>
  chosen: boolean
  onPress: () => void
  role: 'radio' | 'checkbox' | 'tab'
}) {
  const colour = chosen ? colours.aubergine : colours.ink
  const targetPx = useTargetPx()
  return (
    <Press
      role={role}
      selected={chosen}
      onPress={onPress}
      style={{
        minHeight: targetPx,
        minWidth: targetPx,
        maxWidth: '100%',
        paddingHorizontal: space.apart,
        borderRadius: corners.button,
        flexDirection: 'row',
        gap: space.near,
        justifyContent: 'center',
        alignItems: 'center',
        backgroundColor: chosen ? colours.aubergineTint : colours.sheet,
        borderWidth: chosen ? 2 : 1,
        borderColor: chosen ? colours.aubergine : colours.rule,
      }}
    >
      {role === 'checkbox' ? (
        <DrawnSymbol name={chosen ? 'tick' : 'untick'} size={20} colour={colour} />
      ) : null}
      {option.symbol ? <DrawnSymbol name={option.symbol} size={22} colour={colour} /> : null}
      <Text
        variant={chosen ? 'labelMedium' : 'bodyMedium'}
        style={{ color: colour, flexShrink: 1 }}
      >
        {option.label}
      </Text>
    </Press>
  )
}

/** Of a few places on a page, the one looked at. */
export function Tabs<T extends string>({
  label,
  options,
  value,
  onChange,
}: {
  label: string
  options: readonly Choice<T>[]
  value: T
  onChange: (value: T) => void
}) {
  return (
    <Bar role="tablist" aria-label={label} wrap align="stretch" gap="close">
      {options.map((option) => (
        <Chip
          key={option.value}
          role="tab"
          option={option}
          chosen={option.value === value}
          onPress={() => onChange(option.value)}
        />
      ))}
    </Bar>
  )
}

/** On or off. */
export function Toggle({
  label,
  value,
  onChange,
}: {
  label: string
  value: boolean
  onChange: (value: boolean) => void
}) {
  return (
    <Press
      role="switch"
      selected={value}
      onPress={() => onChange(!value)}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: space.apart,
        minHeight: targets.adult,
        maxWidth: '100%',
      }}
    >
      <View
        style={{
          width: 46,
          height: 26,
          borderRadius: 13,
          padding: 3,
          backgroundColor: value ? colours.verdigris : colours.inkSoft,
          alignItems: value ? 'flex-end' : 'flex-start',
        }}
      >
        <View style={{ width: 20, height: 20, borderRadius: 10, backgroundColor: colours.sheet }} />
      </View>
      <Text variant="bodyMedium" style={{ flexShrink: 1 }}>
        {label}
      </Text>
    </Press>
  )
}
