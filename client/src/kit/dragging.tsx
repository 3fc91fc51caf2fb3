import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  arrayMove,
  rectSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import type { HTMLAttributes, ReactNode, Ref } from 'react'
import { View, type ViewStyle } from 'react-native'
import { t } from './words'
import { space } from './theme'

/** What makes an element one that is taken hold of; spread onto it. */
export type Grip = HTMLAttributes<HTMLElement> & { ref: Ref<HTMLElement> }

/** A short tap opens and a swipe scrolls; held for a moment, or drawn away by a mouse, it moves. */
const useHands = () => [
  useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
  useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
]

type OrderedListProps = {
  /** In their order now. */
  ids: readonly string[]
  nameOf: (id: string) => string
  /** What the list is called. */
  label: string
  layout: 'column' | 'wrap' | 'row'
  /** Nothing can be moved. */
  still?: boolean
  onOrder: (ids: string[]) => void
  children: (id: string, grip: Grip) => ReactNode
}

/** Things in an order that is changed by dragging, or with the space bar and the arrow keys. */
export function OrderedList(props: OrderedListProps) {
  const { ids, layout, still = false, onOrder, children } = props
  const hands = useHands()
  const keys = useSensor(KeyboardSensor, {
    coordinateGetter: sortableKeyboardCoordinates,
    keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space'] },
  })
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    onOrder(arrayMove([...ids], ids.indexOf(String(active.id)), ids.indexOf(String(over.id))))
  }
  return (
    <DndContext
      sensors={useSensors(...hands, keys)}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{
        announcements: announcementsFor(props),
        screenReaderInstructions: { draggable: still ? '' : t('dragHelp') },
      }}
    >
      <SortableContext
        items={[...ids]}
        strategy={layout === 'column' ? verticalListSortingStrategy : rectSortingStrategy}
        disabled={still}
      >
        <View role="list" aria-label={props.label} style={LAYOUTS[layout]}>
          {ids.map((id) => (
            <OrderedItem key={id} id={id}>
              {(grip) => children(id, grip)}
            </OrderedItem>
          ))}
        </View>
      </SortableContext>
    </DndContext>
  )
}

const LAYOUTS: Record<OrderedListProps['layout'], ViewStyle> = {
  column: {},
  wrap: { flexDirection: 'row', flexWrap: 'wrap', gap: space.apart },
  row: { flexDirection: 'row', gap: space.apart },
}

function OrderedItem({ id, children }: { id: string; children: (grip: Grip) => ReactNode }) {
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
      {children({
        ref: setNodeRef,
        ...attributes,
        ...listeners,
        'aria-roledescription': undefined,
      })}
    </div>
  )
}

function announcementsFor({ ids, nameOf }: OrderedListProps): Announcements {
  const told = (id: string | number) => ({
    name: nameOf(String(id)),
    place: ids.indexOf(String(id)) + 1,
    of: ids.length,
  })
  return {
    onDragStart: ({ active }) => t('taken', told(active.id)),
    onDragOver: ({ active, over }) =>
      t('over', { ...told(active.id), place: over ? told(over.id).place : 0 }),
    onDragEnd: ({ active, over }) =>
      t('dropped', { ...told(active.id), place: told((over ?? active).id).place }),
    onDragCancel: ({ active }) => t('wasPutBack', { name: nameOf(String(active.id)) }),
  }
}

/** Things that change places with what they are dropped on. */
export function ExchangeField({
  onExchange,
  children,
}: {
  onExchange: (id: string, other: string) => void
  children: ReactNode
}) {
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onExchange(String(active.id), String(over.id))
  }
  return (
    <DndContext sensors={useSensors(...useHands())} onDragEnd={dropped}>
      {children}
    </DndContext>
  )
}

/** One of them. Keys reach what it holds: they do not drag. */
export function Exchangeable({
  id,
  children,
}: {
  id: string
  /** @param under - Whether another is held over it. */
  children: (under: boolean) => ReactNode
}) {
  const drag = useDraggable({ id })
  const drop = useDroppable({ id })
  const by = drag.transform
  return (
    <div
      ref={(node) => {
        drag.setNodeRef(node)
        drop.setNodeRef(node)
      }}
      {...drag.listeners}
      style={{
        transform: by ? `translate(${by.x}px, ${by.y}px)` : undefined,
        touchAction: 'manipulation',
        zIndex: by ? 2 : 0,
        position: 'relative',
      }}
    >
      {children(drop.isOver)}
    </div>
  )
}
