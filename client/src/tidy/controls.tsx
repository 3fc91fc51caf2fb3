import { MOST_DEGREES, type BrightenWay, type Tidying } from '@nibquill/core'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { Listen } from '../kit/Listen'
import { colours } from '../kit/theme'
import { strings } from './strings'

const row = { flexDirection: 'row', gap: 10, flexWrap: 'wrap', alignItems: 'center' } as const

function Say({ children }: { children: string }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <Text variant="bodyLarge" style={{ flex: 1 }}>
        {children}
      </Text>
      <Listen text={children} />
    </View>
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
    <View style={{ gap: 10 }}>
      <Say>{crossed ? strings.crossed : found ? strings.foundPage : strings.noPage}</Say>
      <View style={row}>
        <BigButton
          grow
          symbol="flat"
          label={strings.flatten}
          disabled={crossed}
          onPress={onFlatten}
        />
        {onFindAgain ? (
          <BigButton small tone="quiet" label={strings.findAgain} onPress={onFindAgain} />
        ) : null}
        {flat ? <BigButton small tone="quiet" label={strings.notFlat} onPress={onLeave} /> : null}
      </View>
    </View>
  )
}

const STRENGTHS = [0, 0.35, 0.7, 1] as const

type BrightenProps = {
  value: NonNullable<Tidying['brighten']>
  onChange: (value: NonNullable<Tidying['brighten']>) => void
}

export function BrightenControls({ value, onChange }: BrightenProps) {
  const nearest = STRENGTHS.reduce((best, strength) =>
    Math.abs(strength - value.strength) < Math.abs(best - value.strength) ? strength : best,
  )
  return (
    <View style={{ gap: 10 }}>
      <Choices
        label={strings.way}
        value={value.way}
        options={(['page', 'scene'] as const).map((way) => ({
          value: way,
          label: strings.ways[way],
          symbol: WAY_SYMBOLS[way],
        }))}
        onChange={(way) => onChange({ ...value, way })}
      />
      <Choices
        label={strings.strength}
        value={nearest}
        options={STRENGTHS.map((strength, i) => ({
          value: strength,
          label: strings.strengths[i]!,
        }))}
        onChange={(strength) => onChange({ ...value, strength })}
      />
    </View>
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
    <View style={{ gap: 10 }}>
      <View style={row}>
        <BigButton
          grow
          tone="quiet"
          symbol="turn-left"
          label={strings.turnLeft}
          onPress={() => onQuarter(3)}
        />
        <BigButton
          grow
          tone="quiet"
          symbol="turn"
          label={strings.turnRight}
          onPress={() => onQuarter(1)}
        />
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <input
          type="range"
          aria-label={strings.fine}
          aria-valuetext={strings.degrees(degrees)}
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
          {strings.degrees(degrees)}
        </Text>
      </View>
    </View>
  )
}

export function TrimControls({ onAll, trimmed }: { onAll: () => void; trimmed: boolean }) {
  return (
    <View style={{ gap: 10 }}>
      <Say>{strings.trimHelp}</Say>
      {trimmed ? <BigButton small tone="quiet" label={strings.undoTrim} onPress={onAll} /> : null}
    </View>
  )
}
