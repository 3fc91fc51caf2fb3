import type { Folder, PieceLine } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Bar, Heading, Page, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import type { SymbolName } from '../kit/DrawnSymbol'
import { isRefusal } from '../kit/problems'
import { NOTHING_SOUGHT, useAllPages, useFolder, useFolders } from './foldersQueries'
import { ByTask, LAYINGS, NewestFirst, type Laying } from './InFolder'
import { LookFor, useSettled } from './LookFor'
import { t as kitWords } from '../kit/words'
import { t } from './words'

/** What lies in a folder: newest on top, or, for a pupil, by task and step. */
export function OpenFolder({
  onOpen,
  withNames,
  shelf,
  above = null,
}: {
  onOpen: (piece: PieceLine) => void
  withNames: boolean
  shelf: Shelf
  /** What stands before what lies in it. */
  above?: ReactNode
}) {
  const { id, by } = useLocalSearchParams<{ id: string; by?: string }>()
  const [sought, setSought] = useState(NOTHING_SOUGHT)
  const folder = useFolder(id, useSettled(sought))
  const listed = useFolders().data?.find((one) => one.id === id)
  // A class's folder holds a piece of each: there a task is looked at in the tray and on its own page.
  const byTask = by === 'task' && !withNames
  // A task is whole where all of it is here.
  useAllPages(folder, byTask)
  if (!isHere(folder)) {
    // Not opened on this tablet yet: which folder it is is known all the same.
    if (!listed || isRefusal(folder.error)) return <NotYet of={folder} />
    return (
      <Page max={980}>
        <FolderHead folder={listed} shelf={shelf} />
        {above}
        {folder.fetchStatus === 'paused' ? (
          <Empty symbol="no-network" title={t('folderAway')}>
            {t('folderAwayHelp')}
          </Empty>
        ) : (
          <NotYet of={folder} />
        )}
      </Page>
    )
  }
  const first = folder.data.pages[0]!
  const pieces = folder.data.pages.flatMap((page) => page.pieces)
  return (
    <Page max={980}>
      <FolderHead folder={first} shelf={shelf} />
      {above}
      {first.pieceCount >= SEARCHED_FROM ? (
        <LookFor months={first.months} sought={sought} onChange={setSought} />
      ) : null}
      {!withNames && (byTask || (pieces.length > 1 && pieces.some(({ task }) => task))) ? (
        <Choices
          hidden
          label={t('laying')}
          value={byTask ? 'task' : 'newest'}
          options={LAYINGS.map((value) => ({
            ...{ value, label: t(`layings.${value}`), symbol: LAYING_SYMBOLS[value] },
          }))}
          onChange={(value) => router.setParams({ by: value === 'task' ? value : undefined })}
        />
      ) : null}
      {byTask ? (
        <ByTask {...{ pieces, onOpen }} />
      ) : (
        <NewestFirst {...{ pieces, onOpen, withNames }} />
      )}
      {pieces.length === 0 && first.pieceCount > 0 ? (
        <Empty symbol="lens" title={t('nothingFound')} />
      ) : null}
      {first.pieceCount === 0 && above === null ? (
        <Empty symbol="folder" title={t('emptyFolder')}>
          {t('emptyFolderHelp')}
        </Empty>
      ) : null}
      {folder.hasNextPage ? (
        <BigButton
          label={t('more')}
          tone="quiet"
          symbol="down"
          onPress={() => void folder.fetchNextPage()}
          busy={folder.isFetchingNextPage}
        />
      ) : null}
    </Page>
  )
}

/** Fewer are seen at a glance. */
const SEARCHED_FROM = 4

const LAYING_SYMBOLS: Record<Laying, SymbolName> = { newest: 'clock', task: 'tasks' }

type Shelf = '/folders' | '/my-folders'

function FolderHead({ folder, shelf }: { folder: Folder; shelf: Shelf }) {
  const { tablet } = useWidth()
  const change = () => router.push(`/folders/edit/${folder.id}`)
  return (
    <Bar gap="apart">
      <RoundButton label={kitWords('back')} symbol="back" onPress={() => router.replace(shelf)} />
      <FolderDrawing folder={folder} width={tablet ? 80 : 64} />
      <View style={{ flex: 1 }}>
        <Heading level={1} count={folder.pieceCount}>
          {folder.name}
        </Heading>
      </View>
      {folder.mayChange ? (
        tablet ? (
          <BigButton small tone="quiet" symbol="edit" label={t('edit')} onPress={change} />
        ) : (
          <RoundButton label={t('edit')} symbol="edit" onPress={change} />
        )
      ) : null}
    </Bar>
  )
}
