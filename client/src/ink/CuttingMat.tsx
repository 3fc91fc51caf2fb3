import type { Label, PlacedThing, Stamp, StampWhat } from '@nibquill/core/ink/document'
import { useState, type ReactNode } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { colours, space } from '../kit/theme'
import { useFootPx, useIsLow } from './footPx'
import { penOf, type Hold } from './hold'
import { LabelWriter } from './LabelWriter'
import { nameOfThing } from './names'
import { NewSpots, ToSorted, type Sorting } from './SpotTools'
import { StampBox } from './StampBox'
import { Tool } from './Tool'
import type { Arranging } from './useArranging'
import { t } from './words'

/** Along the foot where things are arranged: what can be put down, or what can be done to one. */
export function CuttingMat({
  arranging,
  hold,
  sheetWidth,
  sorting = null,
  more,
}: {
  arranging: Arranging
  hold: Hold
  sheetWidth: number
  /** Of a sheet that pupils will have copies of: locked is what they cannot move. */
  sorting?: Sorting | null
  /** Other things to put down. */
  more?: ReactNode
}) {
  const [opened, setOpened] = useState<'label' | 'stamps' | 'words' | null>(null)
  const { chosen } = arranging
  const starter = sorting !== null
  const close = () => setOpened(null)
  const label = chosen?.kind === 'label' ? chosen : null
  const low = useIsLow()
  const tools = chosen ? (
    <ToChosen
      sorting={sorting}
      arranging={arranging}
      chosen={chosen}
      onWords={() => setOpened('words')}
    />
  ) : (
    <>
      <Tool symbol="message" label={t('label')} onPress={() => setOpened('label')} />
      <Tool symbol="star" label={t('stamp')} onPress={() => setOpened('stamps')} />
      {more}
      {starter ? <NewSpots arranging={arranging} /> : null}
    </>
  )
  return (
    <View
      role="region"
      aria-label={t('mat')}
      style={{
        ...{ backgroundColor: colours.verdigris, padding: space.near, gap: space.tight },
        ...{ minHeight: useFootPx() },
      }}
    >
      <Said
        words={chosen ? nameOfPlaced(chosen, starter) : t(starter ? 'starterHelp' : 'matHelp')}
      />
      {low ? (
        <ScrollView horizontal contentContainerStyle={{ gap: space.tight }}>
          {tools}
        </ScrollView>
      ) : (
        <Bar wrap gap="tight" style={{ justifyContent: 'center' }}>
          {tools}
        </Bar>
      )}
      <LabelWriter
        visible={opened === 'label' || (opened === 'words' && label !== null)}
        before={opened === 'words' ? label : null}
        sheetWidth={sheetWidth}
        onDone={(words) => {
          if (opened === 'words') arranging.change((thing) => ({ ...(thing as Label), ...words }))
          else arranging.addLabel(words)
          close()
        }}
        onClose={close}
      />
      <StampBox
        visible={opened === 'stamps'}
        pen={penOf(hold)}
        onStamp={(what) => {
          arranging.addStamp(what)
          close()
        }}
        onClose={close}
      />
    </View>
  )
}

function Said({ words }: { words: string }) {
  return (
    <Text role="status" variant="labelMedium" style={{ color: colours.sheet, textAlign: 'center' }}>
      {words}
    </Text>
  )
}

const nameOfPlaced = (thing: PlacedThing, starter: boolean): string => {
  const name = nameOfThing(thing)
  if (thing.kind === 'spot') return t('staysName', { name })
  if (thing.locked) return t(starter ? 'staysName' : 'lockedName', { name })
  return starter ? t('movesName', { name }) : name
}

/** What can be done to the chosen thing; a locked one can only be unlocked. */
function ToChosen({
  arranging,
  chosen,
  sorting,
  onWords,
}: {
  sorting: Sorting | null
  arranging: Arranging
  chosen: PlacedThing
  onWords: () => void
}) {
  const starter = sorting !== null
  if (chosen.locked)
    return (
      <>
        <Tool
          symbol="lock"
          label={t(starter ? 'letMove' : 'unlock')}
          onPress={() => arranging.lock(false)}
        />
        <Tool symbol="check" label={t('letGo')} onPress={arranging.letGo} />
      </>
    )
  return (
    <>
      {chosen.kind === 'label' ? (
        <ToLabel arranging={arranging} label={chosen} onWords={onWords} />
      ) : chosen.kind === 'stamp' ? (
        <ToStamp arranging={arranging} stamp={chosen} />
      ) : null}
      {sorting ? <ToSorted chosen={chosen} arranging={arranging} sorting={sorting} /> : null}
      <Tool symbol="plus" label={t('larger')} onPress={arranging.grow} />
      <Tool symbol="minus" label={t('smaller')} onPress={arranging.shrink} />
      <Tool symbol="undo" label={t('turnLeft')} onPress={() => arranging.turn(-1)} />
      <Tool symbol="redo" label={t('turnRight')} onPress={() => arranging.turn(1)} />
      <Tool symbol="up" label={t('toFront')} onPress={arranging.toFront} />
      <Tool symbol="down-arrow" label={t('toBack')} onPress={arranging.toBack} />
      <Tool symbol="copy" label={t('copy')} onPress={arranging.copy} />
      {chosen.kind === 'spot' ? null : (
        <Tool
          symbol="lock"
          label={t(starter ? 'letStay' : 'lock')}
          onPress={() => arranging.lock(true)}
        />
      )}
      <Tool symbol="bin" label={t('takeOff')} onPress={arranging.takeOff} />
      <Tool symbol="check" label={t('letGo')} onPress={arranging.letGo} />
    </>
  )
}

/** Away from the label, to be drawn to what it names. */
const POINTS = { x: -2000, y: 2500 }
function ToLabel({
  arranging,
  label,
  onWords,
}: {
  arranging: Arranging
  label: Label
  onWords: () => void
}) {
  const point = () =>
    arranging.change((thing) => ({
      ...(thing as Label),
      pointer: label.pointer
        ? null
        : { x: Math.max(0, label.at.x + POINTS.x), y: label.at.y + POINTS.y },
    }))
  return (
    <>
      <Tool symbol="edit" label={t('words')} onPress={onWords} />
      <Tool symbol="forward" label={label.pointer ? t('unpoint') : t('point')} onPress={point} />
      <Listen text={label.lines.join(' ')} colour={colours.sheet} />
    </>
  )
}

/** What is set on a stamp, one step further. */
function stepOf(what: StampWhat, by: 1 | -1): StampWhat | null {
  if (what.of === 'ten-frame') return { ...what, count: Math.min(10, Math.max(0, what.count + by)) }
  if (what.of !== 'clock') return null
  const minutes = ((what.hours % 12) * 60 + what.minutes + by * 15 + 720) % 720
  return { ...what, hours: Math.floor(minutes / 60) || 12, minutes: minutes % 60 }
}

function ToStamp({ arranging, stamp }: { arranging: Arranging; stamp: Stamp }) {
  if (!stepOf(stamp.what, 1)) return null
  const step = (by: 1 | -1) => () =>
    arranging.change((thing) => {
      const what = thing.kind === 'stamp' && stepOf(thing.what, by)
      return what ? { ...(thing as Stamp), what } : thing
    })
  return (
    <>
      <Tool symbol="previous" label={t('less')} onPress={step(-1)} />
      <Tool symbol="next" label={t('more')} onPress={step(1)} />
    </>
  )
}
