import type { Peg as PegLook, PupilLine } from '@nibquill/contract'
import { COLOURS, PEG_SYMBOLS } from '@nibquill/core'
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import { useLocalSearchParams } from 'expo-router'
import { createElement, useState } from 'react'
import { View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { Overlay } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, corners, pigments } from '../kit/theme'
import { toast } from '../kit/Toast'
import { schoolStrings as strings, useClass, usePutPeg } from '../school'

const nameOf = (pupil: PupilLine): string => `${pupil.firstName} ${pupil.lastName}`.trim()

/**
 * The pegs of a class: exchanged by dragging or by tapping two, chosen anew by tapping one twice.
 */
export function PegsScreen() {
  const { classId = '' } = useLocalSearchParams<{ classId?: string }>()
  const detail = useClass(classId)
  const put = usePutPeg(classId)
  const [held, setHeld] = useState<string | null>(null)
  const [choosing, setChoosing] = useState<PupilLine | null>(null)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 8 } }),
    useSensor(KeyboardSensor),
  )
  if (!isHere(detail)) return <NotYet of={detail} />
  const { pupils } = detail.data
  const exchange = (a: string, b: string) => {
    const [one, other] = [pupils.find(({ id }) => id === a), pupils.find(({ id }) => id === b)]
    if (!one || !other || one === other) return
    const back = () => put.mutate({ pupilId: one.id, peg: one.peg })
    put.mutate(
      { pupilId: one.id, peg: other.peg },
      { onSuccess: () => toast(strings.exchanged(nameOf(one), nameOf(other)), back) },
    )
  }
  const tap = (pupil: PupilLine) => {
    if (held === pupil.id) setChoosing(pupil)
    else if (held) exchange(held, pupil.id)
    setHeld(held ? null : pupil.id)
  }
  const dropped = ({ active, over }: DragEndEvent) => {
    setHeld(null)
    if (over) exchange(String(active.id), String(over.id))
  }
  return (
    <Page max={980}>
      <Head title={`${strings.pegs}, ${detail.data.name}`} back={`/class?classId=${classId}`} />
      <Hint>{strings.pegsHelp}</Hint>
      {put.isError ? <ProblemNotice error={put.error} /> : null}
      <DndContext sensors={sensors} onDragEnd={dropped}>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
          {pupils.map((pupil) => (
            <HangingPeg
              key={pupil.id}
              pupil={pupil}
              held={held === pupil.id}
              onTap={() => tap(pupil)}
            />
          ))}
        </View>
      </DndContext>
      {choosing ? (
        <ChoosePeg
          pupil={choosing}
          onClose={() => setChoosing(null)}
          onChoose={(peg) => {
            setChoosing(null)
            put.mutate({ pupilId: choosing.id, peg })
          }}
        />
      ) : null}
    </Page>
  )
}

function HangingPeg({
  pupil,
  held,
  onTap,
}: {
  pupil: PupilLine
  held: boolean
  onTap: () => void
}) {
  const drag = useDraggable({ id: pupil.id })
  const drop = useDroppable({ id: pupil.id })
  const moved = drag.transform
    ? `translate(${drag.transform.x}px, ${drag.transform.y}px)`
    : undefined
  const frame = (node: HTMLElement | null) => {
    drag.setNodeRef(node)
    drop.setNodeRef(node)
  }
  return createElement(
    'div',
    {
      ref: frame,
      ...drag.listeners,
      onKeyDown: undefined,
      style: {
        transform: moved,
        touchAction: 'manipulation',
        zIndex: moved ? 2 : 0,
        position: 'relative',
      },
    },
    <Press
      label={strings.pegOf(nameOf(pupil))}
      selected={held}
      onPress={onTap}
      style={{
        width: 104,
        alignItems: 'center',
        gap: 6,
        padding: 10,
        borderRadius: corners.button,
        borderWidth: 2,
        borderColor: held || drop.isOver ? colours.aubergine : 'transparent',
        backgroundColor: held || drop.isOver ? colours.aubergineTint : 'transparent',
      }}
    >
      <Peg peg={pupil.peg} size={62} />
      <Text variant="bodySmall" style={{ textAlign: 'center' }}>
        {nameOf(pupil)}
      </Text>
    </Press>,
  )
}

function ChoosePeg({
  pupil,
  onClose,
  onChoose,
}: {
  pupil: PupilLine
  onClose: () => void
  onChoose: (peg: PegLook) => void
}) {
  const [peg, setPeg] = useState(pupil.peg)
  return (
    <Overlay visible title={strings.choosePeg(nameOf(pupil))} width={640} onClose={onClose}>
      <Dialog.ScrollArea style={{ maxHeight: 420 }}>
        <View style={{ paddingVertical: 12, gap: 14 }}>
          <Row gap={4}>
            {PEG_SYMBOLS.map((symbol) => (
              <Press
                key={symbol}
                role="radio"
                label={symbol}
                selected={symbol === peg.symbol}
                onPress={() => setPeg({ ...peg, symbol })}
                style={{
                  padding: 3,
                  borderRadius: 30,
                  borderWidth: 2,
                  borderColor: symbol === peg.symbol ? pigments[peg.colour] : 'transparent',
                }}
              >
                <Peg peg={{ symbol, colour: peg.colour }} size={44} />
              </Press>
            ))}
          </Row>
          <Choices
            label={strings.colour}
            options={COLOURS.map((colour) => ({ value: colour, label: colour }))}
            value={peg.colour}
            onChange={(colour) => setPeg({ ...peg, colour })}
          />
        </View>
      </Dialog.ScrollArea>
      <View style={{ padding: 16 }}>
        <BigButton label={strings.hang} symbol="check" onPress={() => onChoose(peg)} />
      </View>
    </Overlay>
  )
}
