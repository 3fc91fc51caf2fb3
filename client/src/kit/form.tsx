import { createElement, useId, type ReactNode } from 'react'
import { Text } from 'react-native-paper'
import { Heading, Stack, Tile } from './layout'
import { colours, corners, fonts } from './theme'

/** A white sheet that holds one matter, with its heading. */
export function Box({
  title,
  children,
  level = 2,
}: {
  title?: string
  children: ReactNode
  level?: 2 | 3
}) {
  return (
    <Tile role={title ? 'region' : undefined} aria-label={title}>
      {title ? <Heading level={level}>{title}</Heading> : null}
      {children}
    </Tile>
  )
}

export function Hint({
  children,
  tone = 'soft',
}: {
  children: ReactNode
  tone?: 'soft' | 'fault' | 'attention'
}) {
  const colour = { soft: colours.inkSoft, fault: colours.clay, attention: colours.ochreText }[tone]
  return (
    <Text
      role={tone === 'fault' ? 'alert' : undefined}
      variant="bodySmall"
      style={{ color: colour }}
    >
      {children}
    </Text>
  )
}

const NATIVE = {
  fontFamily: fonts.read,
  fontSize: 17,
  minHeight: 48,
  padding: '6px 12px',
  color: colours.ink,
  backgroundColor: colours.sheet,
  border: `2px solid ${colours.inkSoft}`,
  borderRadius: corners.button,
  boxSizing: 'border-box',
  width: '100%',
} as const

/** A day (`YYYY-MM-DD`) or a time (`HH:mm`), with the browser's own picker. */
export function DayField({
  label,
  value,
  onChange,
  type = 'date',
  error,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'date' | 'time'
  error?: string | undefined
}) {
  const id = useId()
  return (
    <Stack
      gap="close"
      style={{ minWidth: type === 'date' ? 150 : 110, flexGrow: 1, flexShrink: 1 }}
    >
      {createElement(
        'label',
        { htmlFor: id, style: { fontFamily: fonts.strong, fontSize: 15, color: colours.inkSoft } },
        label,
      )}
      {createElement('input', {
        id,
        type,
        value,
        'aria-invalid': Boolean(error),
        onChange: (event: React.ChangeEvent<HTMLInputElement>) => onChange(event.target.value),
        style: { ...NATIVE, ...(error ? { borderColor: colours.clay } : {}) },
      })}
      {error ? <Hint tone="fault">{error}</Hint> : null}
    </Stack>
  )
}

/** One of many, with the browser's own list. */
export function Select<T extends string>({
  label,
  options,
  value,
  onChange,
  error,
  hidden = false,
}: {
  label: string
  options: readonly { value: T; label: string }[]
  value: T
  onChange: (value: T) => void
  error?: string | undefined
  hidden?: boolean
}) {
  const id = useId()
  return (
    <Stack gap="close" style={{ minWidth: 160, flexGrow: 1 }}>
      {hidden
        ? null
        : createElement(
            'label',
            {
              htmlFor: id,
              style: { fontFamily: fonts.strong, fontSize: 15, color: colours.inkSoft },
            },
            label,
          )}
      {createElement(
        'select',
        {
          id,
          value,
          'aria-label': hidden ? label : undefined,
          onChange: (event: React.ChangeEvent<HTMLSelectElement>) =>
            onChange(event.target.value as T),
          style: NATIVE,
        },
        options.map((option) =>
          createElement('option', { key: option.value, value: option.value }, option.label),
        ),
      )}
      {error ? <Hint tone="fault">{error}</Hint> : null}
    </Stack>
  )
}
