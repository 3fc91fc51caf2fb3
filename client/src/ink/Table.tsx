import type { Ink } from '@nibquill/core/ink/inks'
import { useEffect, useMemo, useRef, useState, useSyncExternalStore, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar, useWidth } from '../kit/layout'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { colours, corners, space } from '../kit/theme'
import { CuttingMat } from './CuttingMat'
import type { Drawing, Seen } from './drawing'
import { TOOL_ROW_PX } from './footPx'
import { FIRST_HOLD, type Hold } from './hold'
import { HoldMore } from './HoldMore'
import { sameInk } from './look'
import { PenRoll } from './PenRoll'
import { Pictures } from '../sheets/pictures'
import { SheetsMenu } from './SheetsMenu'
import type { Sorting } from './SpotTools'
import { SheetStage, type StageHandle, type Work } from './SheetStage'
import { beginStroke } from './strokes'
import { useArranging } from './useArranging'
import { t } from './words'

/** What somebody held last, they hold again. */
let lastHold = FIRST_HOLD

/** Two places at one table: Draw, where hands draw, and Arrange, where they move things. */
export type Place = 'draw' | 'arrange'

/** A table to draw at: what lies on it, what is held, and where one is. */
export function useTable(
  drawing: Drawing,
  begin: Place = 'draw',
  /** Held by somebody who has held nothing else yet. */
  first: Partial<Hold> = {},
) {
  const seen = useSyncExternalStore(drawing.subscribe, drawing.getSnapshot)
  const [hold, setHold] = useState(() =>
    lastHold === FIRST_HOLD ? { ...lastHold, ...first } : lastHold,
  )
  const [pictures] = useState(() => new Pictures())
  const [place, setPlace] = useState(begin)
  const [times, setTimes] = useState(1)
  const stage = useRef<StageHandle>(null)
  const arranging = useArranging(drawing, seen, hold)
  const drawn: Work = {
    begin: (first) => beginStroke(hold, drawing.sheet, first),
    frame: () => null,
    onKey: () => false,
  }
  useUndoKeys(drawing)
  return {
    ...{ drawing, seen, hold, pictures, place, times, stage, arranging },
    ...useLeftHanded(),
    onZoom: setTimes,
    work: place === 'arrange' ? arranging.work : drawn,
    onHold: (more: Partial<Hold>) => setHold((now) => (lastHold = { ...now, ...more })),
    goTo: (to: Place) => {
      stage.current?.leaveKeys()
      arranging.letGo()
      setPlace(to)
    },
  }
}
export type Table = ReturnType<typeof useTable>

/** Above the sheet: the way back, what is to be said of the tool, and the sheets. */
export function TableHead({
  table,
  name,
}: {
  table: Table
  /** Null where there is one sheet and no other may be. */
  name: string | null
}) {
  const { drawing, seen, hold, onHold, place, times, stage, leftHanded } = table
  const { tablet } = useWidth()
  return (
    <Bar
      gap="none"
      between
      style={{
        flexDirection: leftHanded ? 'row-reverse' : 'row',
        paddingHorizontal: space.tight,
      }}
    >
      <Bar gap="none">
        <RoundButton
          label={t('undo')}
          symbol="undo"
          disabled={!seen.canUndo}
          onPress={() => drawing.undo()}
        />
        <RoundButton
          label={t('redo')}
          symbol="redo"
          disabled={!seen.canRedo}
          onPress={() => drawing.redo()}
        />
      </Bar>
      {tablet && place === 'draw' ? (
        <Bar gap="clear">
          <HoldMore hold={hold} onHold={onHold} />
        </Bar>
      ) : null}
      <Bar gap="none">
        {times > 1.01 ? (
          <RoundButton label={t('fit')} symbol="fit" onPress={() => stage.current?.zoom(0)} />
        ) : null}
        <TurnSheets drawing={drawing} seen={seen} />
        {name === null ? null : (
          <SheetsMenu
            drawing={drawing}
            seen={seen}
            name={name}
            pictures={table.pictures}
            leftHanded={leftHanded}
            onLeftHanded={table.setLeftHanded}
          />
        )}
      </Bar>
    </Bar>
  )
}

/** The sheet itself, on a cutting mat where things are arranged. */
export function TableTop({ table }: { table: Table }) {
  const arranges = table.place === 'arrange'
  return (
    <View style={{ flex: 1, minHeight: 120 }}>
      {arranges ? <View aria-hidden style={MAT} /> : null}
      <SheetStage
        ref={table.stage}
        drawing={table.drawing}
        pictures={table.pictures}
        work={table.work}
        label={arranges ? t('matPaper') : t('paper')}
        cursor={arranges ? 'move' : 'crosshair'}
        onZoom={table.onZoom}
      />
    </View>
  )
}

/**
 * Along the foot: the pen roll, or the cutting mat. @param sorting - Of a starter sheet.
 * @param more - Other things to put down.
 */
export function TableFoot({
  table,
  sorting = null,
  more,
}: {
  table: Table
  sorting?: Sorting | null
  more?: ReactNode
}) {
  const { hold, onHold, seen } = table
  const { tablet } = useWidth()
  const mixed = useMixed(seen)
  if (table.place === 'arrange')
    return (
      <CuttingMat
        arranging={table.arranging}
        hold={hold}
        sheetWidth={seen.sheet.width}
        sorting={sorting}
        more={more}
      />
    )
  return (
    <>
      {tablet ? null : (
        <Bar gap="none" style={{ justifyContent: 'center', minHeight: TOOL_ROW_PX }}>
          <HoldMore hold={hold} onHold={onHold} />
        </Bar>
      )}
      <PenRoll hold={hold} onHold={onHold} leftHanded={table.leftHanded} mixed={mixed} />
    </>
  )
}

export const groundOf = ({ place }: Table): string =>
  place === 'arrange' ? colours.verdigrisTint : colours.desk

/** Round the paper where things are arranged: another place, to be seen at a glance. */
const MAT = {
  position: 'absolute',
  inset: 4,
  ...{ borderWidth: 10, borderColor: colours.verdigris, borderRadius: corners.button },
} as const

/** Which of the two places one is at. */
export function Places({ table: { place, goTo } }: { table: Table }) {
  return (
    <Bar
      role="tablist"
      aria-label={t('places')}
      gap="none"
      style={{ borderRadius: corners.button, borderWidth: 2, borderColor: colours.aubergine }}
    >
      {(['draw', 'arrange'] as const).map((one) => (
        <Press
          key={one}
          role="tab"
          selected={one === place}
          onPress={() => goTo(one)}
          style={{
            ...{ minHeight: 52, paddingHorizontal: space.apart, justifyContent: 'center' },
            ...{ borderRadius: corners.button - 4 },
            backgroundColor: one === place ? colours.aubergine : 'transparent',
          }}
        >
          <Text
            variant="labelMedium"
            style={{ color: one === place ? colours.sheet : colours.aubergine }}
          >
            {t(one)}
          </Text>
        </Press>
      ))}
    </Bar>
  )
}

/** Which sheet lies on top; nothing to turn where there is one. */
function TurnSheets({ drawing, seen: { ink, at } }: { drawing: Drawing; seen: Seen }) {
  const { sheets } = ink
  if (sheets.length === 1) return null
  return (
    <>
      <RoundButton
        label={t('sheetBefore')}
        symbol="previous"
        disabled={at === 0}
        onPress={() => drawing.turnTo(sheets[at - 1]!.id)}
      />
      <Text variant="labelMedium" aria-label={t('sheet', { at: at + 1, of: sheets.length })}>
        {at + 1} / {sheets.length}
      </Text>
      <RoundButton
        label={t('sheetAfter')}
        symbol="next"
        disabled={at === sheets.length - 1}
        onPress={() => drawing.turnTo(sheets[at + 1]!.id)}
      />
    </>
  )
}

/** Inks that were mixed for this drawing, each once. */
function useMixed({ ink }: Seen): Ink[] {
  return useMemo(() => {
    const found: Ink[] = []
    for (const { things } of ink.sheets)
      for (const thing of things)
        for (const one of 'pen' in thing ? [thing.pen.ink, thing.pen.edge] : [])
          if (one && new Set(one).size > 1 && !found.some((other) => sameInk(other, one)))
            found.push(one)
    return found
  }, [ink])
}

function useUndoKeys(drawing: Drawing): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return
      const key = event.key.toLowerCase()
      if (key === 'z' && !event.shiftKey) drawing.undo()
      else if (key === 'y' || key === 'z') drawing.redo()
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [drawing])
}

const LEFT_KEY = 'nibquill.drawing-hand'
/** Which hand holds the pen on this tablet. */
function useLeftHanded() {
  const [leftHanded, set] = useState(() => {
    try {
      return localStorage.getItem(LEFT_KEY) === 'left'
    } catch {
      return false
    }
  })
  return {
    leftHanded,
    setLeftHanded: (left: boolean) => {
      set(left)
      try {
        localStorage.setItem(LEFT_KEY, left ? 'left' : 'right')
      } catch {
        // This browser keeps nothing; it holds for as long as the page does.
      }
    },
  }
}
