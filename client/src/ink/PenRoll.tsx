import { colourOf, isFaint, WELL_NAMES, type Ink } from '@nibquill/core/ink/inks'
import { NIB_WIDTHS, WATERS } from '@nibquill/core/ink/document'
import { useRef, useState, type ReactNode } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import Svg, { Circle, Path } from 'react-native-svg'
import { Bar, useWidth } from '../kit/layout'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space } from '../kit/theme'
import { TOOL_ROW_PX, useFootPx, useIsLow } from './footPx'
import { TOOLS, type Hold, type Tool } from './hold'
import { fullNameOf, nameOfInk, ROLL, sameInk } from './look'
import { Beside, InkWell } from './InkWell'
import { MixingDish } from './MixingDish'
import { TOOL_DRAWINGS } from './ToolDrawings'
import { t } from './words'

type Props = { hold: Hold; onHold: (change: Partial<Hold>) => void; leftHanded: boolean }

/** Along the foot: what one draws with, and the inks. */
export function PenRoll({ hold, onHold, leftHanded, mixed }: Props & { mixed: readonly Ink[] }) {
  const { tablet, wide } = useWidth()
  const low = useIsLow()
  const [forEdge, setForEdge] = useState(false)
  const take = (ink: Ink) => {
    onHold(forEdge ? { edge: ink } : { ink })
    setForEdge(false)
  }
  const edgePressed = () => {
    if (hold.edge) onHold({ edge: null })
    setForEdge(!hold.edge && !forEdge)
  }
  const row = leftHanded ? 'row-reverse' : 'row'
  const tools = <Tools hold={hold} onHold={onHold} leftHanded={leftHanded} />
  const beside = (
    <Bar gap="tight" style={{ flexDirection: row }}>
      <Water hold={hold} onHold={onHold} />
      <Edge edge={hold.edge} choosing={forEdge} onPress={edgePressed} />
      <MixingDish mixed={mixed} onInk={take} />
    </Bar>
  )
  const wells = <Wells hold={hold} forEdge={forEdge} onInk={take} perRow={wide || low ? 12 : 6} />
  return (
    <View
      style={{
        ...{ backgroundColor: ROLL.leather, paddingBottom: space.close },
        ...{ justifyContent: 'flex-end', minHeight: useFootPx() - (tablet ? 0 : TOOL_ROW_PX) },
      }}
    >
      <View aria-hidden style={STITCHES} />
      {low ? (
        <ScrollView horizontal contentContainerStyle={{ alignItems: 'flex-end', gap: space.near }}>
          {tools}
          {wells}
          {beside}
        </ScrollView>
      ) : tablet ? (
        <Bar
          gap="none"
          align="flex-end"
          style={{ flexDirection: row, justifyContent: 'space-evenly' }}
        >
          {tools}
          {wells}
          {beside}
        </Bar>
      ) : (
        <View>
          <Bar gap="none" between align="flex-end" style={{ flexDirection: row }}>
            {tools}
            {beside}
          </Bar>
          {wells}
        </View>
      )}
      {low ? null : <Held hold={hold} forEdge={forEdge} />}
    </View>
  )
}

const STITCHES = {
  position: 'absolute',
  ...{ left: 0, right: 0, top: 5, borderTopWidth: 2 },
  borderStyle: 'dashed' as const,
  borderColor: ROLL.stitch,
} as const

/** In words: what will be drawn. Also what is wanted of a tap next. */
function Held({ hold, forEdge }: { hold: Hold; forEdge: boolean }) {
  const faint = hold.tool !== 'rubber' && hold.edge === null && isFaint(hold.ink, hold.water)
  return (
    <Bar gap="near" style={{ justifyContent: 'center', minHeight: 24 }}>
      <Text role="status" variant="labelMedium" style={{ color: ROLL.words }}>
        {forEdge
          ? t('pickEdge')
          : t('held', {
              ink: nameOfInk(hold.ink),
              strength: `w${hold.water}`,
              edge: hold.edge ? nameOfInk(hold.edge) : 'none',
            })}
      </Text>
      {faint && !forEdge ? (
        <Bar gap="tight">
          <DrawnSymbol name="eyeoff" size={18} colour={ROLL.stitch} />
          <Text variant="labelMedium" style={{ color: ROLL.stitch }}>
            {t('faint')}
          </Text>
        </Bar>
      ) : null}
    </Bar>
  )
}

function Tools({ hold, onHold, leftHanded }: Props) {
  return (
    <Bar
      role="radiogroup"
      aria-label={t('tools')}
      gap="none"
      align="flex-end"
      style={{ flexDirection: leftHanded ? 'row-reverse' : 'row' }}
    >
      {TOOLS.map((tool) => (
        <PulledOut key={tool} nib={tool === 'nib' ? hold.nib : null} onPull={onHold}>
          <InPocket
            tool={tool}
            held={tool === hold.tool}
            colour={colourOf(hold.ink)}
            outPx={tool === hold.tool ? 46 + (tool === 'nib' ? 5 * hold.nib : 10) : 34}
            onPress={() => onHold({ tool })}
          />
        </PulledOut>
      ))}
    </Bar>
  )
}

/** How far a finger draws the nib out of its pocket from one thickness to the next. */
const PULL_PX = 12
/** The nib draws as thick as it is pulled out: by a finger, or with the arrow keys up and down. */
function PulledOut({
  nib,
  onPull,
  children,
}: {
  /** Null for what is only taken. */
  nib: number | null
  onPull: (change: Partial<Hold>) => void
  children: ReactNode
}) {
  const began = useRef<{ y: number; nib: number } | null>(null)
  if (nib === null) return children
  const pull = (to: number) => {
    const wanted = Math.min(NIB_WIDTHS.length - 1, Math.max(0, to))
    if (wanted !== nib) onPull({ tool: 'nib', nib: wanted })
  }
  return (
    <div
      style={{ touchAction: 'none' }}
      onPointerDown={({ clientY }) => (began.current = { y: clientY, nib })}
      onPointerMove={({ clientY, buttons }) => {
        if (!began.current || buttons === 0) return
        pull(began.current.nib + Math.round((began.current.y - clientY) / PULL_PX))
      }}
      onPointerUp={() => (began.current = null)}
      onKeyDown={({ key }) => {
        if (key === 'ArrowUp') pull(nib + 1)
        if (key === 'ArrowDown') pull(nib - 1)
      }}
    >
      {children}
    </div>
  )
}

/** A tool, pulled out as far as it is meant. */
function InPocket({
  tool,
  held,
  colour,
  outPx,
  onPress,
}: {
  tool: Tool
  held: boolean
  colour: string
  outPx: number
  onPress: () => void
}) {
  const Drawing = TOOL_DRAWINGS[tool]
  return (
    <Press label={t(tool)} role="radio" selected={held} onPress={onPress} style={{ width: 58 }}>
      <View style={{ height: 70, justifyContent: 'flex-end', overflow: 'hidden' }}>
        <View style={{ height: outPx, alignItems: 'center' }}>
          <Drawing colour={colour} />
        </View>
      </View>
      <View
        style={{
          backgroundColor: held ? ROLL.words : ROLL.pocket,
          borderTopWidth: 2,
          borderTopColor: ROLL.stitch,
          alignItems: 'center',
          paddingVertical: space.tight,
        }}
      >
        <Text variant="labelSmall" style={{ color: held ? colours.ink : ROLL.words }}>
          {t(tool)}
        </Text>
      </View>
    </Press>
  )
}

function Wells({
  hold,
  forEdge,
  onInk,
  perRow,
}: {
  hold: Hold
  forEdge: boolean
  onInk: (ink: Ink) => void
  perRow: 6 | 12
}) {
  const chosen = forEdge ? hold.edge : hold.ink
  return (
    <View role="radiogroup" aria-label={t('wells')} style={{ alignSelf: 'center' }}>
      {Array.from({ length: 12 / perRow }, (_, row) => (
        <Bar key={row} gap="none">
          {WELL_NAMES.slice(row * perRow, (row + 1) * perRow).map((well) => (
            <InkWell
              key={well}
              ink={[well]}
              held={chosen !== null && sameInk(chosen, [well])}
              dashed={forEdge}
              onPress={() => onInk([well])}
            />
          ))}
        </Bar>
      ))}
    </View>
  )
}

/** A glass of water: each tap gives the ink more, until it has none again. */
function Water({ hold, onHold }: Pick<Props, 'hold' | 'onHold'>) {
  const full = [0, 12, 20, 29][hold.water]!
  return (
    <Beside
      words={t('water')}
      label={t('waterNow', { strength: `w${hold.water}` })}
      onPress={() => onHold({ water: WATERS[(hold.water + 1) % WATERS.length]! })}
    >
      <Svg width={46} height={46} viewBox="0 0 46 46" aria-hidden>
        <Path d="M8 5 h30 l-4 36 h-22 z" fill="#F7F1E2" />
        <Path
          d={`M${12 - full / 9} ${41 - full} h${22 + (2 * full) / 9} l-${full / 9} ${full} h-22 z`}
          fill="#9CC3E0"
        />
        <Path
          d="M8 5 h30 l-4 36 h-22 z"
          fill="none"
          stroke="#EFE6D2"
          strokeWidth={3}
          strokeLinejoin="round"
        />
        {[1, 2, 3].map((line) => (
          <Path
            key={line}
            d={`M28 ${41 - [0, 12, 20, 29][line]!} h6`}
            stroke="#5E5146"
            strokeWidth={2}
          />
        ))}
      </Svg>
    </Beside>
  )
}

/** The small well: empty, or what edges the line. */
function Edge({
  edge,
  choosing,
  onPress,
}: {
  edge: Ink | null
  choosing: boolean
  onPress: () => void
}) {
  return (
    <Beside
      words={t('edge')}
      label={t('edgeNow', { edge: edge ? fullNameOf(edge) : t('noEdge') })}
      onPress={onPress}
    >
      <Svg width={46} height={46} viewBox="0 0 46 46" aria-hidden>
        <Circle cx={23} cy={23} r={15} fill="#F7F1E2" />
        <Circle
          cx={23}
          cy={23}
          r={15}
          fill="none"
          stroke={edge ? colourOf(edge) : '#EFE6D2'}
          strokeWidth={edge ? 8 : 4}
          strokeDasharray={edge ? undefined : '5 5'}
        />
        {choosing ? (
          <Circle cx={23} cy={23} r={21} fill="none" stroke="#FFFFFF" strokeWidth={3} />
        ) : null}
      </Svg>
    </Beside>
  )
}
