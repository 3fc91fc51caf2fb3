import type { PieceLine } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Grid, Heading, Page } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { strings as kitWords } from '../kit/strings'
import { PieceTile } from '../parts/PieceTile'
import { useFolder } from './foldersQueries'
import { strings } from './strings'

/** What lies in a folder, newest on top. */
export function OpenFolder({
  onOpen,
  withNames,
  shelf,
}: {
  onOpen: (piece: PieceLine) => void
  withNames: boolean
  shelf: '/folders' | '/my-folders'
}) {
  const { id } = useLocalSearchParams<{ id: string }>()
  const folder = useFolder(id)
  if (!isHere(folder)) return <NotYet of={folder} />
  const first = folder.data.pages[0]!
  const pieces = folder.data.pages.flatMap((page) => page.pieces)
  return (
    <Page max={980}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 14 }}>
        <RoundButton label={kitWords.back} symbol="back" onPress={() => router.replace(shelf)} />
        <FolderDrawing folder={first} width={80} />
        <View style={{ flex: 1 }}>
          <Heading level={1} count={first.pieceCount}>
            {first.name}
          </Heading>
        </View>
        {first.mayChange ? (
          <BigButton
            small
            tone="quiet"
            symbol="edit"
            label={strings.edit}
            onPress={() => router.push(`/folders/edit/${id}`)}
          />
        ) : null}
      </View>
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
      {pieces.length === 0 ? (
        <Empty symbol="folder" title={strings.emptyFolder}>
          {strings.emptyFolderHelp}
        </Empty>
      ) : null}
      {folder.hasNextPage ? (
        <BigButton
          label={strings.more}
          tone="quiet"
          symbol="down"
          onPress={() => void folder.fetchNextPage()}
          busy={folder.isFetchingNextPage}
        />
      ) : null}
    </Page>
  )
}
