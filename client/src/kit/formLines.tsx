import type { ComponentProps } from 'react'
import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form'
import { Choices, Several, Toggle } from './choices'
import { Field, type FieldProps } from './Field'
import { DayField, Select } from './form'
import { sentence } from './refusals'

// The lines of a form: each by the name of what it fills in, with what is wrong with it beneath.

type Line<Filled extends FieldValues> = {
  control: Control<Filled, unknown, unknown>
  name: FieldPath<Filled>
}

export function FormLine<Filled extends FieldValues>({
  control,
  name,
  ...rest
}: Line<Filled> & Omit<FieldProps, 'value' | 'onChangeText' | 'onBlur' | 'error'>) {
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

export function FormDay<Filled extends FieldValues>({
  control,
  name,
  ...rest
}: Line<Filled> & Pick<ComponentProps<typeof DayField>, 'label' | 'type'>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <DayField
          value={(field.value as string | null) ?? ''}
          onChange={field.onChange}
          error={sentence(fieldState.error?.message)}
          {...rest}
        />
      )}
    />
  )
}

/** Of a list; the empty choice is nothing (`null`) where there is one. */
export function FormSelect<Filled extends FieldValues>({
  control,
  name,
  ...rest
}: Line<Filled> & Pick<ComponentProps<typeof Select<string>>, 'label' | 'options' | 'hidden'>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Select
          value={(field.value as string | null) ?? ''}
          onChange={(value) => field.onChange(value === '' ? null : value)}
          error={sentence(fieldState.error?.message)}
          {...rest}
        />
      )}
    />
  )
}

export function FormChoices<
  Filled extends FieldValues,
  T extends string | number | boolean | null,
>({
  control,
  name,
  ...rest
}: Line<Filled> & Pick<ComponentProps<typeof Choices<T>>, 'label' | 'options' | 'hidden'>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Choices value={field.value as T} onChange={field.onChange} {...rest} />
      )}
    />
  )
}

export function FormSeveral<Filled extends FieldValues>({
  control,
  name,
  ...rest
}: Line<Filled> & Pick<ComponentProps<typeof Several<string>>, 'label' | 'options'>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Several
          values={(field.value as string[] | null) ?? []}
          onChange={field.onChange}
          error={sentence(fieldState.error?.message)}
          {...rest}
        />
      )}
    />
  )
}

export function FormToggle<Filled extends FieldValues>({
  control,
  name,
  label,
}: Line<Filled> & { label: string }) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Toggle label={label} value={Boolean(field.value)} onChange={field.onChange} />
      )}
    />
  )
}
