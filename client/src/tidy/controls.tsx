import { MOST_DEGREES, type BrightenWay, type Tidying } from '@nibquill/core'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { Listen } from '../kit/Listen'
import { colours, space } from '../kit/theme'
import { namesOf } from '../words'
import { t } from './words'
import { Bar, Stack } from '../kit/layout'

const row = {
  flexDirection: 'row',
  gap: space.near,
  flexWrap: 'wrap',
  alignItems: 'center',
} as const

function Say({ children }: { children: string }) {
  return (
    <Bar gap="close">
      <Text variant="bodyLarge" style={{ flex: 1 }}>
        {children}
      </Text>
      <Listen text={children} />
    </Bar>
  )
}

type StraightenProps = {
  found: boolean
  crossed: boolean
  flat: boolean
  onFlatten: () => void
  onFindAgain: (() => void) | null
  onLeave: () => void
}

export function StraightenControls({
  found,
  crossed,
  flat,
  onFlatten,
  onFindAgain,
  onLeave,
}: StraightenProps) {
  return (
    <Stack gap="near">
      <Say>{crossed ? t('crossed') : found ? t('foundPage') : t('noPage')}</Say>
      <View style={row}>
        <BigButton grow symbol="flat" label={t('flatten')} disabled={crossed} onPress={onFlatten} />
        {onFindAgain ? (
          <BigButton small tone="quiet" label={t('findAgain')} onPress={onFindAgain} />
        ) : null}
        {flat ? <BigButton small tone="quiet" label={t('notFlat')} onPress={onLeave} /> : null}
      </View>
    </Stack>
  )
}

const STRENGTHS = { none: 0, little: 0.35, more: 0.7, lot: 1 } as const

type BrightenProps = {
  value: NonNullable<Tidying['brighten']>
  onChange: (value: NonNullable<Tidying['brighten']>) => void
}

export function BrightenControls({ value, onChange }: BrightenProps) {
  const nearest = Object.values(STRENGTHS).reduce((best, strength) =>
    Math.abs(strength - value.strength) < Math.abs(best - value.strength) ? strength : best,
  )
  return (
    <Stack gap="near">
      <Choices
        label={t('way')}
        value={value.way}
        options={(['page', 'scene'] as const).map((way) => ({
          value: way,
          label: t(`ways.${way}`),
          symbol: WAY_SYMBOLS[way],
        }))}
        onChange={(way) => onChange({ ...value, way })}
      />
      <Choices
        label={t('strength')}
        value={nearest}
        options={namesOf(STRENGTHS).map((name) => ({
          value: STRENGTHS[name],
          label: t(`strengths.${name}`),
        }))}
        onChange={(strength) => onChange({ ...value, strength })}
      />
    </Stack>
  )
}
const WAY_SYMBOLS: Record<BrightenWay, 'file' | 'teddy'> = { page: 'file', scene: 'teddy' }

type TurnProps = {
  degrees: number
  onQuarter: (times: 1 | 3) => void
  onBegin: () => void
  onDegrees: (degrees: number) => void
}

export function TurnControls({ degrees, onQuarter, onBegin, onDegrees }: TurnProps) {
  return (
    <Stack gap="near">
      <View style={row}>
        <BigButton
          grow
          tone="quiet"
          symbol="turn-left"
          label={t('turnLeft')}
          onPress={() => onQuarter(3)}
        />
        <BigButton
          grow
          tone="quiet"
          symbol="turn"
          label={t('turnRight')}
          onPress={() => onQuarter(1)}
        />
      </View>
      <Bar gap="apart">
        <input
          type="range"
          aria-label={t('fine')}
          aria-valuetext={t('degrees', { degrees })}
          min={-MOST_DEGREES}
          max={MOST_DEGREES}
          step={0.5}
          value={degrees}
          onPointerDown={onBegin}
          onKeyDown={(event) => {
            if (event.key.startsWith('Arrow') && !event.repeat) onBegin()
          }}
          onChange={(event) => onDegrees(Number(event.currentTarget.value))}
          style={{ flex: 1, height: 44, accentColor: colours.aubergine }}
        />
        <Text variant="labelLarge" style={{ width: 56, textAlign: 'right' }}>
          {t('degrees', { degrees })}
        </Text>
      </Bar>
    </Stack>
  )
}

export function TrimControls({ onAll, trimmed }: { onAll: () => void; trimmed: boolean }) {
  return (
    <Stack gap="near">
      <Say>{t('trimHelp')}</Say>
      {trimmed ? <BigButton small tone="quiet" label={t('undoTrim')} onPress={onAll} /> : null}
    </Stack>
  )
}
