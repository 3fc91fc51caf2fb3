import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Press } from './Press'
import { Symbol, type SymbolName } from './Symbol'
import { colours, corners, targets } from './theme'

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
    <View style={{ gap: 6 }}>
      {hidden ? null : (
        <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
          {label}
        </Text>
      )}
      <View
        role="radiogroup"
        aria-label={label}
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}
      >
        {options.map((option) => (
          <Chip
            key={String(option.value)}
            role="radio"
            option={option}
            chosen={option.value === value}
            onPress={() => onChange(option.value)}
          />
        ))}
      </View>
    </View>
  )
}

/** Any number of a few. */
export function Several<T extends string>({
  label,
  options,
  values,
  onChange,
}: {
  label: string
  options: readonly Choice<T>[]
  values: readonly T[]
  onChange: (values: T[]) => void
}) {
  const toggle = (value: T) => {
    const chosen = new Set(values)
    if (!chosen.delete(value)) chosen.add(value)
    onChange(options.map((option) => option.value).filter((one) => chosen.has(one)))
  }
  return (
    <View style={{ gap: 6 }}>
      <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
        {label}
      </Text>
      <View
        role="group"
        aria-label={label}
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}
      >
        {options.map((option) => (
          <Chip
            key={option.value}
            role="checkbox"
            option={option}
            chosen={values.includes(option.value)}
            onPress={() => toggle(option.value)}
          />
        ))}
      </View>
    </View>
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
  return (
    <Press
      role={role}
      selected={chosen}
      onPress={onPress}
      style={{
        minHeight: targets.adult,
        minWidth: targets.adult,
        paddingHorizontal: 14,
        borderRadius: corners.button,
        flexDirection: 'row',
        gap: 8,
        justifyContent: 'center',
        alignItems: 'center',
        backgroundColor: chosen ? colours.aubergineTint : colours.sheet,
        borderWidth: chosen ? 2 : 1,
        borderColor: chosen ? colours.aubergine : colours.rule,
      }}
    >
      {role === 'checkbox' ? (
        <Symbol name={chosen ? 'tick' : 'untick'} size={20} colour={colour} />
      ) : null}
      {option.symbol ? <Symbol name={option.symbol} size={22} colour={colour} /> : null}
      <Text variant={chosen ? 'labelMedium' : 'bodyMedium'} style={{ color: colour }}>
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
    <View
      role="tablist"
      aria-label={label}
      style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}
    >
      {options.map((option) => (
        <Chip
          key={option.value}
          role="tab"
          option={option}
          chosen={option.value === value}
          onPress={() => onChange(option.value)}
        />
      ))}
    </View>
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
      style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: targets.adult }}
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
