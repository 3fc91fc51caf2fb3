import { createElement, useId, type ReactNode } from 'react'
import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { ProblemError } from './problems'
import { Field, type FieldProps } from './Field'
import { Heading } from './layout'
import { colours, corners, fonts, shadow } from './theme'

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
    <View
      role={title ? 'region' : undefined}
      aria-label={title}
      style={[
        { backgroundColor: colours.sheet, borderRadius: corners.button, padding: 18, gap: 14 },
        shadow,
      ]}
    >
      {title ? <Heading level={level}>{title}</Heading> : null}
      {children}
    </View>
  )
}

/** Things side by side that wrap. */
export const Row = ({ children, gap = 10 }: { children: ReactNode; gap?: number }) => (
  <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap }}>
    {children}
  </View>
)

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
    <View style={{ gap: 6, minWidth: type === 'date' ? 150 : 110, flexGrow: 1, flexShrink: 1 }}>
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
    </View>
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
    <View style={{ gap: 6, minWidth: 160, flexGrow: 1 }}>
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
    </View>
  )
}

/** A line of a form, with what is wrong with it under it. */
export function FormLine<T extends FieldValues>({
  control,
  name,
  ...rest
}: { control: Control<T>; name: FieldPath<T> } & Omit<
  FieldProps,
  'value' | 'onChangeText' | 'onBlur' | 'error'
>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Field
          value={(field.value as string | null) ?? ''}
          onChangeText={field.onChange}
          onBlur={field.onBlur}
          error={sentence(fieldState.error?.message)}
          {...rest}
        />
      )}
    />
  )
}

export function FormDay<T extends FieldValues>({
  control,
  name,
  label,
  type = 'date',
}: {
  control: Control<T>
  name: FieldPath<T>
  label: string
  type?: 'date' | 'time'
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <DayField
          label={label}
          type={type}
          value={(field.value as string | null) ?? ''}
          onChange={field.onChange}
          error={sentence(fieldState.error?.message)}
        />
      )}
    />
  )
}

/** Faults of the contract are the rest of a sentence about the thing beside which they stand. */
export const sentence = (fault: string | undefined): string | undefined =>
  fault ? `It ${fault}.` : undefined

/** What the server found wrong, by path of the field. */
export const faultsOf = (error: unknown): Record<string, string[]> =>
  error instanceof ProblemError ? (error.problem.fields ?? {}) : {}
