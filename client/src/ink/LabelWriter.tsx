import {
  LABEL_GROUND_NAMES,
  LABEL_GROUNDS,
  LABEL_SIZES,
  MOST_LABEL_LETTERS,
  MOST_LABEL_LINES,
} from '@nibquill/core/ink/document'
import { breakLines, unknownLetters } from '@nibquill/core/ink/letters'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Overlay } from '../kit/Overlay'
import { Press } from '../kit/Press'
import { colours, corners, space, targets } from '../kit/theme'
import type { LabelWords } from './useArranging'
import { t } from './words'

/** No label is wider than that much of its sheet by itself. */
const WIDEST_SHARE = 0.6

/** Words for a label, how large they are and what lies behind them. */
export function LabelWriter({
  visible,
  before,
  sheetWidth,
  onDone,
  onClose,
}: {
  visible: boolean
  /** Null for a new one. */
  before: LabelWords | null
  sheetWidth: number
  onDone: (words: LabelWords) => void
  onClose: () => void
}) {
  return (
    <Overlay visible={visible} title={t('label')} width={560} onClose={onClose}>
      <Writing before={before} sheetWidth={sheetWidth} onDone={onDone} />
    </Overlay>
  )
}

function Writing({
  before,
  sheetWidth,
  onDone,
}: {
  before: LabelWords | null
  sheetWidth: number
  onDone: (words: LabelWords) => void
}) {
  const [text, setText] = useState(before?.lines.join('\n') ?? '')
  const [size, setSize] = useState(before?.size ?? 1)
  const [ground, setGround] = useState(before?.ground ?? 'white')
  const unknown = unknownLetters(text)
  const lines = breakLines(text.trim(), LABEL_SIZES[size]!, sheetWidth * WIDEST_SHARE)
  const full = lines.length > MOST_LABEL_LINES
  return (
    <Stack gap="clear" style={{ padding: space.far, paddingTop: 0 }}>
      <Bar align="flex-start">
        <View style={{ flex: 1 }}>
          <Field
            label={t('labelWords')}
            value={text}
            onChangeText={setText}
            lines={3}
            autoFocus
            large
            maxLength={MOST_LABEL_LETTERS}
            error={
              full
                ? t('labelFull')
                : unknown.length > 0
                  ? t('unknownLetters', { letters: unknown.join(' ') })
                  : undefined
            }
          />
        </View>
        <Listen text={text.trim() || t('labelHelp')} />
      </Bar>
      <Bar role="radiogroup" aria-label={t('labelSize')} gap="near">
        {LABEL_SIZES.map((em, i) => (
          <Pick
            key={em}
            label={t('labelSizes', { name: `n${i}` })}
            chosen={i === size}
            onPress={() => setSize(i)}
          >
            <Text style={{ fontSize: 14 + 6 * i, lineHeight: 44 }}>Aa</Text>
          </Pick>
        ))}
      </Bar>
      <Bar role="radiogroup" aria-label={t('labelGround')} gap="near" wrap>
        {LABEL_GROUND_NAMES.map((name) => (
          <Pick
            key={name}
            label={t(`grounds.${name}`)}
            chosen={name === ground}
            back={LABEL_GROUNDS[name] ?? 'transparent'}
            onPress={() => setGround(name)}
          >
            <Text style={{ fontSize: 18, lineHeight: 44 }}>{name === 'none' ? '–' : 'Aa'}</Text>
          </Pick>
        ))}
      </Bar>
      <BigButton
        label={before ? t('labelDone') : t('labelPut')}
        symbol="check"
        disabled={text.trim() === '' || full || unknown.length > 0}
        onPress={() => onDone({ lines, size, ground })}
      />
    </Stack>
  )
}

function Pick({
  label,
  chosen,
  back = colours.sheet,
  onPress,
  children,
}: {
  label: string
  chosen: boolean
  back?: string
  onPress: () => void
  children: React.ReactNode
}) {
  return (
    <Press
      role="radio"
      label={label}
      selected={chosen}
      onPress={onPress}
      style={{
        ...{ minWidth: targets.pupil, height: targets.pupil, alignItems: 'center' },
        ...{ justifyContent: 'center', borderRadius: corners.button, backgroundColor: back },
        borderWidth: chosen ? 3 : 1,
        borderColor: chosen ? colours.aubergine : colours.rule,
      }}
    >
      {children}
    </Press>
  )
}
