import { Text } from 'react-native-paper'
import { Bar } from '../kit/layout'
import { RoundButton } from '../kit/RoundButton'
import { t } from './words'

/** Leads through sheets or pages, one at a time; nothing where there is only one. */
export function PageTurner({
  what,
  at,
  of,
  onTurn,
}: {
  what: 'sheet' | 'page'
  /** From 0. */
  at: number
  of: number
  onTurn: (at: number) => void
}) {
  if (of < 2) return null
  return (
    <Bar gap="near" style={{ justifyContent: 'center' }}>
      <RoundButton
        label={t(`turn.${what}.before`)}
        symbol="previous"
        disabled={at === 0}
        onPress={() => onTurn(at - 1)}
      />
      <Text variant="labelMedium" role="status">
        {t(`turn.${what}.at`, { at: at + 1, of })}
      </Text>
      <RoundButton
        label={t(`turn.${what}.after`)}
        symbol="next"
        disabled={at === of - 1}
        onPress={() => onTurn(at + 1)}
      />
    </Bar>
  )
}
