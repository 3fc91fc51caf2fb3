import type { DrawingPart, Part, Piece } from '@nibquill/contract'
import { isOpen } from '@nibquill/core'
import { MOST_THINGS } from '@nibquill/core/ink/document'
import type { Ink } from '@nibquill/core/ink/inks'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack, useWidth } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { Press } from '../kit/Press'
import { colours, corners, space } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { MakeHead, useGoOnAfter, WhatTeacherSaid } from '../making'
import { LaterInk } from '../parts/inkQuery'
import { PartView } from '../parts/PartView'
import { PieceTrouble, useShownPiece } from '../pieces'
import type { Drawing, Seen } from './drawing'
import { FIRST_HOLD, type Hold } from './hold'
import { CuttingMat } from './CuttingMat'
import { TOOL_ROW_PX } from './footPx'
import { HoldMore } from './HoldMore'
import { sameInk } from './look'
import { LayPhotos, LayPicture } from './LayPicture'
import { PenRoll } from './PenRoll'
import { Pictures } from './pictures'
import { SheetsMenu } from './SheetsMenu'
import { SheetStage, type StageHandle, type Work } from './SheetStage'
import { beginStroke } from './strokes'
import { useArranging } from './useArranging'
import { useDrawing } from './useDrawing'
import { t } from './words'

/** Full screen: a sheet, a roll of pens and wells of ink. What is drawn is kept line by line. */
export function DrawScreen() {
  const { id, partId, taskId, over } = useLocalSearchParams<{
    id?: string
    partId?: string
    taskId?: string
    /** A photo of the piece, to be drawn on. */
    over?: string
  }>()
  const [fresh] = useState(() => ({ pieceId: newId(), partId: newId() }))
  const pieceId = id ?? fresh.pieceId
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  if (id && !piece && query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  if (id && !piece) return <Loading />
  const wanted = partId ?? fresh.partId
  const part = piece?.parts.find((one) => one.id === wanted)
  const began = part?.kind === 'drawing' ? part : null
  // Begun on this very screen, it is there a moment after it is in the address.
  if (partId && partId !== fresh.partId && !began)
    return <Instead pieceId={pieceId} words={t('gone')} />
  if (piece && !isOpen(piece.state)) return <Instead pieceId={pieceId} words={t('closed')} />
  return (
    <OpenDrawing
      key={wanted}
      pieceId={pieceId}
      piece={piece}
      partId={wanted}
      part={began}
      over={piece?.parts.find((one) => one.id === over && one.kind === 'photo') ?? null}
      taskId={taskId ?? null}
    />
  )
}

function Instead({ pieceId, words, part }: { pieceId: string; words: string; part?: DrawingPart }) {
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('title')} />
      <Stack style={{ padding: space.far, flex: 1 }}>
        <Notice tone="attention" symbol="alert">
          {words}
        </Notice>
        {part ? (
          <View style={{ flex: 1 }}>
            <PartView view="large" part={part} alt={t('title')} />
          </View>
        ) : null}
        <BigButton
          symbol="back"
          label={t('back')}
          onPress={() => router.replace(`/my-pieces/${pieceId}`)}
        />
      </Stack>
    </View>
  )
}

type OpenProps = {
  pieceId: string
  piece: Piece | null
  partId: string
  part: DrawingPart | null
  over: Part | null
  taskId: string | null
}

function OpenDrawing(props: OpenProps) {
  const { pieceId, partId } = props
  // One that begins here becomes a part with its first line, and goes on as it began.
  const [begins] = useState(props.part === null)
  const part = begins ? null : props.part
  const { drawing, error } = useDrawing({
    ...{ pieceId, partId, part, taskId: props.taskId, over: props.over },
    // So that whoever comes back to this screen comes back to this drawing.
    onBegun: () => router.setParams({ id: pieceId, partId }),
  })
  if (error instanceof LaterInk && part)
    return <Instead pieceId={pieceId} words={t('later')} part={part} />
  if (error)
    return <ProblemNotice error={error} onRetry={() => router.replace(`/my-pieces/${pieceId}`)} />
  if (!drawing) return <Loading />
  return <AtWork {...props} drawing={drawing} />
}

/** What somebody held last, they hold again. */
let lastHold = FIRST_HOLD

function AtWork({ pieceId, piece, drawing }: OpenProps & { drawing: Drawing }) {
  const seen = useSyncExternalStore(drawing.subscribe, drawing.getSnapshot)
  const [hold, setHold] = useState(lastHold)
  const { leftHanded, setLeftHanded } = useLeftHanded()
  const stage = useRef<StageHandle>(null)
  const [pictures] = useState(() => new Pictures())
  const [times, setTimes] = useState(1)
  const goOnAfter = useGoOnAfter()
  const { tablet } = useWidth()
  const change = (more: Partial<Hold>) => setHold((now) => (lastHold = { ...now, ...more }))
  const mixed = useMixed(seen)
  useUndoKeys(drawing)
  const anything = seen.ink.sheets.some(({ things }) => things.length > 0)
  const row = leftHanded ? 'row-reverse' : 'row'
  const [place, setPlace] = useState<'draw' | 'arrange'>('draw')
  const arranging = useArranging(drawing, seen, hold)
  const goTo = (to: 'draw' | 'arrange') => {
    stage.current?.leaveKeys()
    arranging.letGo()
    setPlace(to)
  }
  const drawn: Work = {
    begin: (first) => beginStroke(hold, drawing.sheet, first),
    frame: () => null,
    onKey: () => false,
  }
  const arranges = place === 'arrange'
  const more = <HoldMore hold={hold} onHold={change} />
  return (
    <View style={{ flex: 1, backgroundColor: arranges ? colours.verdigrisTint : colours.desk }}>
      <MakeHead
        title={t('title')}
        middle={<Places place={place} onPlace={goTo} />}
        end={
          anything ? (
            <BigButton
              small
              label={t('goOn')}
              onPress={() => goOnAfter('making', pieceId, piece?.task ?? null)}
            />
          ) : null
        }
      />
      <Stack gap="near" style={{ paddingHorizontal: space.apart }}>
        {piece ? <WhatTeacherSaid piece={piece} /> : null}
        <PieceTrouble pieceId={pieceId} />
        {seen.sheet.things.length >= MOST_THINGS ? (
          <Notice tone="attention" symbol="bulb">
            {t('full')}
          </Notice>
        ) : null}
      </Stack>
      <Bar gap="none" between style={{ flexDirection: row, paddingHorizontal: space.tight }}>
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
        {tablet && !arranges ? <Bar gap="clear">{more}</Bar> : null}
        <Bar gap="none">
          {times > 1.01 ? (
            <RoundButton label={t('fit')} symbol="fit" onPress={() => stage.current?.zoom(0)} />
          ) : null}
          <TurnSheets drawing={drawing} seen={seen} />
          <SheetsMenu
            drawing={drawing}
            seen={seen}
            name={piece?.title || t('title')}
            pictures={pictures}
            leftHanded={leftHanded}
            onLeftHanded={setLeftHanded}
          />
        </Bar>
      </Bar>
      <View style={{ flex: 1, minHeight: 120 }}>
        {arranges ? <View aria-hidden style={MAT} /> : null}
        <SheetStage
          ref={stage}
          drawing={drawing}
          pictures={pictures}
          work={arranges ? arranging.work : drawn}
          label={arranges ? t('matPaper') : t('paper')}
          cursor={arranges ? 'move' : 'crosshair'}
          onZoom={setTimes}
        />
      </View>
      <ToastPlace />
      {arranges ? (
        <CuttingMat
          arranging={arranging}
          hold={hold}
          sheetWidth={seen.sheet.width}
          more={
            <>
              <LayPicture pieceId={pieceId} arranging={arranging} />
              <LayPhotos piece={piece} arranging={arranging} />
            </>
          }
        />
      ) : (
        <>
          {tablet ? null : (
            <Bar gap="none" style={{ justifyContent: 'center', minHeight: TOOL_ROW_PX }}>
              {more}
            </Bar>
          )}
          <PenRoll hold={hold} onHold={change} leftHanded={leftHanded} mixed={mixed} />
        </>
      )}
    </View>
  )
}

/** Round the paper where things are arranged: another place, to be seen at a glance. */
const MAT = {
  position: 'absolute',
  inset: 4,
  ...{ borderWidth: 10, borderColor: colours.verdigris, borderRadius: corners.button },
} as const

/** Draw, where hands draw, and Arrange, where they move things. */
function Places({
  place,
  onPlace,
}: {
  place: 'draw' | 'arrange'
  onPlace: (place: 'draw' | 'arrange') => void
}) {
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
          onPress={() => onPlace(one)}
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
