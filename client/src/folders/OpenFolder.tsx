import type { Folder, PieceLine } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Bar, Grid, Heading, Page, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'

import { PieceTile } from '../parts/PieceTile'
import { isRefusal } from '../kit/problems'
import { NOTHING_SOUGHT, useFolder, useFolders } from './foldersQueries'
import { LookFor, useSettled } from './LookFor'
import { t as kitWords } from '../kit/words'
import { t } from './words'

/** What lies in a folder, newest on top. */
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
  const { id } = useLocalSearchParams<{ id: string }>()
  const [sought, setSought] = useState(NOTHING_SOUGHT)
  const folder = useFolder(id, useSettled(sought))
  const listed = useFolders().data?.find((one) => one.id === id)
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
      <Grid>
        {pieces.map((piece) => (
          <PieceTile
            key={piece.id}
            piece={piece}
            onPress={() => onOpen(piece)}
            under={
              withNames
                ? `${piece.pupil.firstName} ${piece.pupil.lastName}`
                : whenWasIt(piece.submittedAt ?? piece.changedAt)
            }
          />
        ))}
      </Grid>
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
