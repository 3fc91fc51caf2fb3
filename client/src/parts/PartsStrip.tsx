import {
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  closestCenter,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  SortableContext,
  arrayMove,
  rectSortingStrategy,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable'
import type { Part } from '@nibquill/contract'
import { router } from 'expo-router'
import type { CSSProperties, ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { RoundButton } from '../kit/RoundButton'
import { toast } from '../kit/Toast'
import { colours, corners } from '../kit/theme'
import type { Sending } from '../media/uploader'
import { useSendings } from '../pieces/uploads'
import { nameOf } from './partKinds'
import { PartView } from './PartView'
import { useOrderParts, useRemovePart } from './partsQueries'
import { SendingTile, TILE_PX } from './SendingTile'
import { strings } from './strings'

const TILE: CSSProperties = {
  width: TILE_PX,
  height: TILE_PX * 0.76,
  borderRadius: corners.sheet,
  overflow: 'hidden',
  backgroundColor: colours.desk,
  border: `1px solid ${colours.rule}`,
  boxSizing: 'border-box',
  cursor: 'pointer',
}

type Entry = { id: string; part: Part | null; sending: Sending | null; name: string }

type StripProps = {
  pieceId: string
  parts: Part[]
  open?: boolean
  /** In one line, to be scrolled sideways. */
  row?: boolean
}

/**
 * What a piece is made of, and what is still on its way to it: tapped, it opens; dragged, it moves.
 */
export function PartsStrip({ pieceId, parts, open = true, row = false }: StripProps) {
  const sendings = useSendings(pieceId)
  const remove = useRemovePart(pieceId)
  const { order } = useOrderParts(pieceId)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    // A short tap opens and a swipe scrolls; held for a moment, it moves.
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space'] },
    }),
  )
  const entries = entriesOf(parts, sendings)
  const ids = entries.filter(({ part }) => part !== null).map(({ id }) => id)
  const takeOut = (partId: string) =>
    remove.mutate(
      { partId, restore: false },
      {
        onSuccess: () =>
          toast(strings.removed, () => remove.mutate({ partId, restore: true }), strings.undo),
      },
    )
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    order(arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))))
  }
  const show = (partId: string) => router.push(`/my-pieces/${pieceId}/parts/${partId}`)
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{
        announcements: announcementsFor(entries, ids),
        screenReaderInstructions: { draggable: open ? strings.dragHelp : '' },
      }}
    >
      <SortableContext items={ids} strategy={rectSortingStrategy} disabled={!open}>
        <View
          role="list"
          aria-label={strings.partsSoFar}
          style={{ flexDirection: 'row', flexWrap: row ? 'nowrap' : 'wrap', gap: 12 }}
        >
          {entries.map(({ id, part, sending, name }, i) =>
            sending ? (
              <SendingTile key={id} sending={sending} onOpen={() => show(id)} />
            ) : (
              <PartTile
                key={id}
                id={id}
                name={name}
                onOpen={() => show(id)}
                onRemove={open ? () => takeOut(id) : null}
                place={i + 1}
              >
                <PartView view="tile" part={part!} alt="" />
              </PartTile>
            ),
          )}
        </View>
      </SortableContext>
    </DndContext>
  )
}

/**
 * A tidied photo on its way stands in the place of the one it comes from; the rest of what is on
 * its way comes last.
 */
export function entriesOf(parts: readonly Part[], sendings: readonly Sending[]): Entry[] {
  const onTheWay = sendings.filter(({ partId }) => !parts.some(({ id }) => id === partId))
  const instead = new Map(
    onTheWay.flatMap((sending) =>
      sending.instead ? [[sending.instead.partId, sending] as const] : [],
    ),
  )
  const newest = (sending: Sending): Sending =>
    instead.has(sending.partId) ? newest(instead.get(sending.partId)!) : sending
  const there = parts.map((part, i) => {
    const sending = instead.has(part.id) ? newest(instead.get(part.id)!) : null
    return {
      id: sending?.partId ?? part.id,
      part: sending ? null : part,
      sending,
      name: nameOf(part, i),
    }
  })
  const rest = onTheWay
    .filter((sending) => !sending.instead)
    .map((first) => ({
      id: newest(first).partId,
      part: null,
      sending: newest(first),
      name: first.name,
    }))
  return [...there, ...rest]
}

type TileProps = {
  id: string
  name: string
  place: number
  onOpen: () => void
  onRemove: (() => void) | null
  children: ReactNode
}

function PartTile({ id, name, place, onOpen, onRemove, children }: TileProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id,
  })
  return (
    <div
      role="listitem"
      style={{
        position: 'relative',
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
        transition,
        zIndex: isDragging ? 2 : undefined,
        opacity: isDragging ? 0.85 : 1,
      }}
    >
      <div
        ref={setNodeRef}
        {...attributes}
        {...listeners}
        role="button"
        aria-roledescription={undefined}
        aria-label={strings.open(name)}
        onClick={onOpen}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onOpen()
          else (listeners?.onKeyDown as ((event: React.KeyboardEvent) => void) | undefined)?.(event)
        }}
        style={{ ...TILE, touchAction: 'manipulation' }}
      >
        {children}
      </div>
      <View
        aria-hidden
        style={{
          position: 'absolute',
          left: 5,
          bottom: 5,
          minWidth: 26,
          borderRadius: 13,
          backgroundColor: 'rgba(255,255,255,0.94)',
          alignItems: 'center',
          paddingHorizontal: 6,
          pointerEvents: 'none',
        }}
      >
        <Text variant="labelSmall">{place}</Text>
      </View>
      {onRemove ? (
        <View style={{ position: 'absolute', top: 2, right: 2 }}>
          <RoundButton
            label={strings.remove(name)}
            symbol="close"
            size={44}
            back="rgba(255,255,255,0.92)"
            onPress={onRemove}
          />
        </View>
      ) : null}
    </div>
  )
}

function announcementsFor(entries: readonly Entry[], ids: readonly string[]): Announcements {
  const name = (id: string | number) => entries.find((entry) => entry.id === id)?.name ?? ''
  const place = (id: string | number | undefined) => ids.indexOf(String(id)) + 1
  return {
    onDragStart: ({ active }) => strings.taken(name(active.id), place(active.id), ids.length),
    onDragOver: ({ active, over }) => strings.over(name(active.id), place(over?.id), ids.length),
    onDragEnd: ({ active, over }) =>
      strings.dropped(name(active.id), place(over?.id ?? active.id), ids.length),
    onDragCancel: ({ active }) => strings.putBack(name(active.id)),
  }
}
