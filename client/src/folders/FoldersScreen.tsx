import type { Folder } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState, type Ref } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Toggle } from '../kit/choices'
import { OrderedList, type Grip } from '../kit/dragging'
import { Box, Hint } from '../kit/form'
import { Bar, Grid, Heading, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, pigments, space } from '../kit/theme'
import { useClasses } from '../school'
import { FolderTile } from './FolderTile'
import {
  useAnswerProposal,
  useFolders,
  useFoldersPutAway,
  useOrderFolders,
  useReadySet,
} from './foldersQueries'
import { t } from './words'

const about = (folder: Folder): string =>
  [
    folder.owner
      ? t('ownOf', { owner: folder.owner.name })
      : (folder.className ?? t('wholeSchool')),
    t('pieces', { count: folder.pieceCount }),
    folder.parentsSee ? '' : t('parentsDoNotSee'),
    folder.pupilsFile ? '' : t('pupilsDoNotFile'),
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
      <Heading level={1}>{t('title')}</Heading>
      {wishes.map((wish) => (
        <Wish key={wish.id} wish={wish} />
      ))}
      <Bar wrap>
        <BigButton
          small
          symbol="plus"
          label={t('newFolder')}
          onPress={() => router.push('/folders/edit/new')}
        />
        {standing.length > 1 ? (
          <BigButton
            small
            tone="quiet"
            symbol={ordering ? 'check' : 'sort'}
            label={ordering ? t('orderDone') : t('order')}
            onPress={() => setOrdering(!ordering)}
          />
        ) : null}
        <ReadySets folders={all} />
        {all.some(({ member }) => !member) && !ordering ? (
          <Toggle label={t('everyClass')} value={everyClass} onChange={setEveryClass} />
        ) : null}
      </Bar>
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
        <Empty symbol="folder" title={t('empty')}>
          {t('emptyTeacher')}
        </Empty>
      ) : null}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol={shelf ? 'up' : 'put-away'}
          label={t('putAwayShelf')}
          onPress={() => setShelf(!shelf)}
        />
      </Bar>
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
      label={t('readySet', { className: name })}
      busy={ready.isPending}
      onPress={() => ready.mutate(id)}
    />
  ))
}

function Wish({ wish }: { wish: Folder }) {
  const answer = useAnswerProposal()
  return (
    <Box>
      <Bar wrap gap="apart">
        <DrawnSymbol name={wish.symbol} size={30} colour={pigments[wish.colour]} />
        <Text variant="bodyMedium" style={{ flex: 1, minWidth: 180 }}>
          {t('wish', { owner: wish.owner?.name ?? '', name: wish.name })}
        </Text>
        <BigButton
          small
          tone="good"
          label={t('agree')}
          onPress={() => answer.mutate({ id: wish.id, agree: true })}
        />
        <BigButton
          small
          tone="quiet"
          label={t('decline')}
          onPress={() => answer.mutate({ id: wish.id, agree: false })}
        />
      </Bar>
      {answer.isError ? <ProblemNotice error={answer.error} /> : null}
    </Box>
  )
}

function OrderList({ folders }: { folders: Folder[] }) {
  const order = useOrderFolders()
  const byId = new Map(folders.map((folder) => [folder.id, folder]))
  return (
    <Box>
      <Hint>{t('orderHelp')}</Hint>
      {order.isError ? <ProblemNotice error={order.error} /> : null}
      <OrderedList
        ids={folders.map(({ id }) => id)}
        nameOf={(id) => byId.get(id)!.name}
        label={t('title')}
        layout="column"
        onOrder={(next) => order.mutate(next)}
      >
        {(id, grip) => <OrderLine folder={byId.get(id)!} grip={grip} />}
      </OrderedList>
    </Box>
  )
}

function OrderLine({ folder, grip }: { folder: Folder; grip: Grip }) {
  return (
    <div
      {...grip}
      ref={grip.ref as Ref<HTMLDivElement>}
      aria-label={t('grip', { name: folder.name })}
      style={{
        display: 'flex',
        alignItems: 'center',
        gap: space.apart,
        padding: '10px 4px',
        borderBottom: `1px solid ${colours.rule}`,
        cursor: 'grab',
        touchAction: 'manipulation',
        backgroundColor: colours.sheet,
      }}
    >
      <DrawnSymbol name="grip" size={22} colour={colours.inkSoft} />
      <DrawnSymbol name={folder.symbol} size={26} colour={pigments[folder.colour]} />
      <View style={{ flex: 1 }}>
        <Text variant="titleSmall">{folder.name}</Text>
        <Hint>{about(folder)}</Hint>
      </View>
    </div>
  )
}
