import { type TextInputProps } from 'react-native'
import { Text, TextInput } from 'react-native-paper'
import { colours, corners, fonts } from './theme'
import { Stack } from './layout'
import { t } from './words'

export type FieldProps = Pick<
  TextInputProps,
  | 'onChangeText'
  | 'onBlur'
  | 'onSubmitEditing'
  | 'autoCapitalize'
  | 'autoComplete'
  | 'secureTextEntry'
  | 'inputMode'
  | 'maxLength'
  | 'autoFocus'
  | 'spellCheck'
> & {
  label: string
  value: string
  error?: string
  large?: boolean
  lines?: number
  placeholder?: string
}

/** A line to write on, or several. */
export function Field({ label, value, error, large = false, lines = 1, ...rest }: FieldProps) {
  const multiline = lines > 1
  const full = rest.maxLength !== undefined && value.length >= rest.maxLength
  return (
    <Stack gap="close">
      <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
        {label}
      </Text>
      <TextInput
        aria-label={label}
        mode="outlined"
        value={value}
        error={Boolean(error)}
        multiline={multiline}
        numberOfLines={lines}
        outlineColor={colours.inkSoft}
        activeOutlineColor={colours.aubergine}
        outlineStyle={{ borderRadius: corners.button, borderWidth: 2 }}
        contentStyle={{
          fontFamily: fonts.read,
          fontSize: large ? 22 : 18,
          lineHeight: multiline ? 30 : undefined,
          paddingVertical: multiline ? 12 : undefined,
          minHeight: multiline ? lines * 30 + 24 : large ? 64 : 54,
        }}
        style={{ backgroundColor: colours.sheet }}
        {...rest}
      />
      {full && !error ? (
        <Text role="status" variant="bodySmall" style={{ color: colours.ochreText }}>
          {t('fieldFull', { most: rest.maxLength! })}
        </Text>
      ) : null}
      {error ? (
        <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
          {error}
        </Text>
      ) : null}
    </Stack>
  )
}
