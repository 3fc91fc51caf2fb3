import {
  ARROW_NAMES,
  COIN_VALUES,
  LITTLE_NAMES,
  SHAPE_NAMES,
  type Pen,
  type Stamp,
  type StampWhat,
} from '@nibquill/core/ink/document'
import { STAMP_SIZES } from '@nibquill/core/ink/stamps'
import { useMemo } from 'react'
import { Text } from 'react-native-paper'
import { Bar, Stack } from '../kit/layout'
import { Overlay } from '../kit/Overlay'
import { Press } from '../kit/Press'
import { colours, corners, space, targets } from '../kit/theme'
import { ThingPicture } from './ThingPicture'
import { t } from './words'

type Group = { label: string; stamps: readonly StampWhat[] }
const tiles = (letters: string): StampWhat[] => [...letters].map((words) => ({ of: 'tile', words }))
const NUMBERS: StampWhat[] = Array.from({ length: 21 }, (_, i) => ({ of: 'tile', words: `${i}` }))

const groups = (): Group[] => [
  { label: t('stampGroups.shapes'), stamps: SHAPE_NAMES.map((name) => ({ of: 'shape', name })) },
  { label: t('stampGroups.arrows'), stamps: ARROW_NAMES.map((name) => ({ of: 'arrow', name })) },
  {
    label: t('stampGroups.counting'),
    stamps: [
      { of: 'ten-frame', count: 5 },
      { of: 'clock', hours: 3, minutes: 0 },
      { of: 'number-line', from: 0, to: 10 },
      { of: 'number-line', from: 0, to: 20 },
      { of: 'number-line', from: -10, to: 10 },
      { of: 'number-line', from: 0, to: 100 },
    ],
  },
  {
    label: t('stampGroups.pictures'),
    stamps: LITTLE_NAMES.map((name) => ({ of: 'little', name })),
  },
  { label: t('stampGroups.coins'), stamps: COIN_VALUES.map((value) => ({ of: 'coin', value })) },
  { label: t('stampGroups.numbers'), stamps: [...NUMBERS, ...tiles('+−×÷=<>?')] },
  { label: t('stampGroups.letters'), stamps: tiles('abcdefghijklmnopqrstuvwxyz') },
]

/** What a stamp is called. */
export function nameOfStamp(what: StampWhat): string {
  switch (what.of) {
    case 'shape':
      return t(`shapes.${what.name}`)
    case 'arrow':
      return t(`arrows.${what.name}`)
    case 'little':
      return t(`little.${what.name}`)
    case 'tile':
      return t('tile', { words: what.words })
    case 'coin':
      return t('coin', { value: what.value })
    case 'ten-frame':
      return t('tenFrame', { count: what.count })
    case 'number-line':
      return t('numberLine', { from: what.from, to: what.to })
    case 'clock':
      return t('clock', { hours: what.hours, minutes: String(what.minutes).padStart(2, '0') })
  }
}

/** The box of stamps: a tap puts one down. */
export function StampBox({
  visible,
  pen,
  onStamp,
  onClose,
}: {
  visible: boolean
  /** They are shown in the ink they will have. */
  pen: Pen
  onStamp: (what: StampWhat) => void
  onClose: () => void
}) {
  return (
    <Overlay visible={visible} title={t('stamps')} width={720} onClose={onClose}>
      <Stack gap="apart" style={{ padding: space.far, paddingTop: 0 }}>
        {groups().map(({ label, stamps }) => (
          <Stack key={label} gap="tight" role="group" aria-label={label}>
            <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
              {label}
            </Text>
            <Bar wrap gap="tight">
              {stamps.map((what) => (
                <Sample
                  key={JSON.stringify(what)}
                  what={what}
                  pen={pen}
                  onPress={() => onStamp(what)}
                />
              ))}
            </Bar>
          </Stack>
        ))}
      </Stack>
    </Overlay>
  )
}

function Sample({ what, pen, onPress }: { what: StampWhat; pen: Pen; onPress: () => void }) {
  const { width, height } = STAMP_SIZES[what.of]
  const px = what.of === 'number-line' ? 180 : what.of === 'ten-frame' ? 96 : 44
  const thing = useMemo(
    (): Stamp => ({
      ...{ kind: 'stamp', id: 's', pen, what, width, height },
      ...{ at: { x: 0, y: 0 }, turn: 0, locked: false },
    }),
    [what, pen, width, height],
  )
  return (
    <Press
      label={nameOfStamp(what)}
      onPress={onPress}
      style={{
        ...{ minWidth: targets.pupil, minHeight: targets.pupil, padding: space.tight },
        ...{ alignItems: 'center', justifyContent: 'center', backgroundColor: colours.sheet },
        ...{ borderRadius: corners.sheet, borderWidth: 1, borderColor: colours.rule },
      }}
    >
      <ThingPicture thing={thing} px={(px * Math.max(width, height)) / width} />
    </Press>
  )
}
