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
import { useWaiting } from '../outbox/OutboxContext'
import { partStanding, type PartStanding } from '../outbox/partStanding'
import { usePieceWork } from '../pieces'
import { nameOf } from '../parts/partKinds'
import { PartView } from '../parts/PartView'
import { OnItsWay, TILE_HEIGHT_PX } from '../parts/OnItsWay'
import { strings } from '../parts/strings'

const TILE_PX = 132
const TILE: CSSProperties = {
  width: TILE_PX,
  height: TILE_HEIGHT_PX,
  borderRadius: corners.sheet,
  overflow: 'hidden',
  backgroundColor: colours.desk,
  border: `1px solid ${colours.rule}`,
  boxSizing: 'border-box',
  cursor: 'pointer',
}

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
  const waiting = useWaiting(pieceId)
  const work = usePieceWork(pieceId)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    // A short tap opens and a swipe scrolls; held for a moment, it moves.
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space'] },
    }),
  )
  const ids = parts.map(({ id }) => id)
  const nameAt = (i: number) => nameOf(parts[i]!, i)
  const takeOut = async (part: Part) => {
    await work.takeOut(part)
    toast(strings.removed, () => void work.putBack(part.id), strings.undo)
  }
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    void work.order(arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))))
  }
  const show = (partId: string) => router.push(`/my-pieces/${pieceId}/parts/${partId}`)
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{
        announcements: announcementsFor(ids, nameAt),
        screenReaderInstructions: { draggable: open ? strings.dragHelp : '' },
      }}
    >
      <SortableContext items={ids} strategy={rectSortingStrategy} disabled={!open}>
        <View
          role="list"
          aria-label={strings.partsSoFar}
          style={{ flexDirection: 'row', flexWrap: row ? 'nowrap' : 'wrap', gap: 12 }}
        >
          {parts.map((part, i) => (
            <PartTile
              key={part.id}
              id={part.id}
              name={nameAt(i)}
              onOpen={() => show(part.id)}
              onRemove={open ? () => void takeOut(part) : null}
              place={i + 1}
              standing={partStanding(waiting, part.id)}
            >
              <PartView view="tile" part={part} alt="" />
            </PartTile>
          ))}
        </View>
      </SortableContext>
    </DndContext>
  )
}

type TileProps = {
  id: string
  name: string
  place: number
  onOpen: () => void
  onRemove: (() => void) | null
  /** Null once it is at school. */
  standing: PartStanding | null
  children: ReactNode
}

function PartTile({ id, name, place, onOpen, onRemove, standing, children }: TileProps) {
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
      {standing ? <OnItsWay name={name} standing={standing} /> : null}
      <View
        aria-hidden
        style={{
          position: 'absolute',
          left: 5,
          top: TILE_HEIGHT_PX - 29,
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

function announcementsFor(
  ids: readonly string[],
  nameAt: (index: number) => string,
): Announcements {
  const at = (id: string | number | undefined) => ids.indexOf(String(id))
  const name = (id: string | number) => (at(id) < 0 ? '' : nameAt(at(id)))
  const place = (id: string | number | undefined) => at(id) + 1
  return {
    onDragStart: ({ active }) => strings.taken(name(active.id), place(active.id), ids.length),
    onDragOver: ({ active, over }) => strings.over(name(active.id), place(over?.id), ids.length),
    onDragEnd: ({ active, over }) =>
      strings.dropped(name(active.id), place(over?.id ?? active.id), ids.length),
    onDragCancel: ({ active }) => strings.putBack(name(active.id)),
  }
}
