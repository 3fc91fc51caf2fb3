import type { Folder } from '@nibquill/contract'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { router } from 'expo-router'
import { createElement, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Toggle } from '../kit/choices'
import { Box, Hint, Row } from '../kit/form'
import { Grid, Heading, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { strings as kitWords } from '../kit/strings'
import { Symbol } from '../kit/Symbol'
import { colours, pigments } from '../kit/theme'
import { useClasses } from '../school'
import { FolderTile } from './FolderTile'
import {
  useAnswerProposal,
  useFolders,
  useFoldersPutAway,
  useOrderFolders,
  useReadySet,
} from './foldersQueries'
import { strings } from './strings'

const about = (folder: Folder): string =>
  [
    folder.owner ? strings.ownOf(folder.owner.name) : (folder.className ?? strings.wholeSchool),
    kitWords.pieces(folder.pieceCount),
    folder.parentsSee ? '' : strings.parentsDoNotSee,
    folder.pupilsFile ? '' : strings.pupilsDoNotFile,
  ]
    .filter(Boolean)
    .join(', ')

/** A teacher's folders: made, ordered, put away; pupils' wishes on top. */
export function FoldersScreen() {
  const folders = useFolders()
  const [ordering, setOrdering] = useState(false)
  const [shelf, setShelf] = useState(false)
  const [everyClass, setEveryClass] = useState(false)
  const away = useFoldersPutAway(shelf)
  if (!isHere(folders)) return <NotYet of={folders} />
  const wishes = folders.data.filter(({ owner }) => owner && !owner.agreed)
  const all = folders.data.filter(({ owner }) => !owner || owner.agreed)
  const standing = everyClass ? all : all.filter(({ member }) => member)
  return (
    <Page max={980}>
      <Heading level={1}>{strings.title}</Heading>
      {wishes.map((wish) => (
        <Wish key={wish.id} wish={wish} />
      ))}
      <Row>
        <BigButton
          small
          symbol="plus"
          label={strings.newFolder}
          onPress={() => router.push('/folders/edit/new')}
        />
        {standing.length > 1 ? (
          <BigButton
            small
            tone="quiet"
            symbol={ordering ? 'check' : 'sort'}
            label={ordering ? strings.orderDone : strings.order}
            onPress={() => setOrdering(!ordering)}
          />
        ) : null}
        <ReadySets folders={all} />
        {all.some(({ member }) => !member) && !ordering ? (
          <Toggle label={strings.everyClass} value={everyClass} onChange={setEveryClass} />
        ) : null}
      </Row>
      {ordering ? (
        <OrderList folders={standing} />
      ) : (
        <Grid>
          {standing.map((folder) => (
            <FolderTile
              key={folder.id}
              folder={folder}
              onPress={() => router.push(`/folders/${folder.id}`)}
              note={about(folder)}
            />
          ))}
        </Grid>
      )}
      {standing.length === 0 ? (
        <Empty symbol="folder" title={strings.empty}>
          {strings.emptyTeacher}
        </Empty>
      ) : null}
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol={shelf ? 'up' : 'put-away'}
          label={strings.putAwayShelf}
          onPress={() => setShelf(!shelf)}
        />
      </Row>
      {shelf ? (
        <Grid>
          {(away.data ?? []).map((folder) => (
            <FolderTile
              key={folder.id}
              folder={folder}
              onPress={() => router.push(`/folders/edit/${folder.id}`)}
              note={about(folder)}
            />
          ))}
        </Grid>
      ) : null}
    </Page>
  )
}

/** Offered for classes that have no folder of their own yet. */
function ReadySets({ folders }: { folders: Folder[] }) {
  const classes = useClasses()
  const ready = useReadySet()
  const bare = (classes.data ?? []).filter(
    ({ id, mine }) =>
      mine && !folders.some(({ classIds, owner }) => !owner && classIds.includes(id)),
  )
  return bare.map(({ id, name }) => (
    <BigButton
      key={id}
      small
      tone="quiet"
      symbol="folder"
      label={strings.readySet(name)}
      busy={ready.isPending}
      onPress={() => ready.mutate(id)}
    />
  ))
}

function Wish({ wish }: { wish: Folder }) {
  const answer = useAnswerProposal()
  return (
    <Box>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12, flexWrap: 'wrap' }}>
        <Symbol name={wish.symbol} size={30} colour={pigments[wish.colour]} />
        <Text variant="bodyMedium" style={{ flex: 1, minWidth: 180 }}>
          {strings.wish(wish.owner?.name ?? '', wish.name)}
        </Text>
        <BigButton
          small
          tone="good"
          label={strings.agree}
          onPress={() => answer.mutate({ id: wish.id, agree: true })}
        />
        <BigButton
          small
          tone="quiet"
          label={strings.decline}
          onPress={() => answer.mutate({ id: wish.id, agree: false })}
        />
      </View>
      {answer.isError ? <ProblemNotice error={answer.error} /> : null}
    </Box>
  )
}

/** The order, changed by drag or with space bar and arrow keys. */
function OrderList({ folders }: { folders: Folder[] }) {
  const order = useOrderFolders()
  const [ids, setIds] = useState(folders.map(({ id }) => id))
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const next = arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
    setIds(next)
    order.mutate(next)
  }
  const byId = new Map(folders.map((folder) => [folder.id, folder]))
  return (
    <Box>
      <Hint>{strings.orderHelp}</Hint>
      {order.isError ? <ProblemNotice error={order.error} /> : null}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {ids.map((id) => {
            const folder = byId.get(id)
            return folder ? <OrderLine key={id} folder={folder} /> : null
          })}
        </SortableContext>
      </DndContext>
    </Box>
  )
}

function OrderLine({ folder }: { folder: Folder }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({
    id: folder.id,
  })
  return createElement(
    'div',
    {
      ref: setNodeRef,
      ...attributes,
      ...listeners,
      'aria-label': strings.grip(folder.name),
      style: {
        transform: transform ? `translate(0, ${transform.y}px)` : undefined,
        transition,
        display: 'flex',
        alignItems: 'center',
        gap: 12,
        padding: '10px 4px',
        borderBottom: `1px solid ${colours.rule}`,
        cursor: 'grab',
        touchAction: 'none',
        backgroundColor: colours.sheet,
      },
    },
    <Symbol name="grip" size={22} colour={colours.inkSoft} />,
    <Symbol name={folder.symbol} size={26} colour={pigments[folder.colour]} />,
    <View style={{ flex: 1 }}>
      <Text variant="titleSmall">{folder.name}</Text>
      <Hint>{about(folder)}</Hint>
    </View>,
  )
}
