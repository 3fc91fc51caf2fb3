import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { FolderTile, useFolders } from '../folders'
import { BigButton } from '../kit/BigButton'
import { Grid, Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { isHere, NotYet } from '../kit/NotYet'
import { wordsOf } from '../outbox/senders'
import { piecesStrings as strings, PieceTrouble, usePieceWork, WithPiece } from '../pieces'
import { MakeHead } from './MakeHead'

export function WhichFolderScreen() {
  return <WithPiece>{(piece) => <WhichFolder piece={piece} />}</WithPiece>
}

/**
 * Second of the last three steps: the task's folder is chosen already, and can be changed where the
 * task allows.
 */
function WhichFolder({ piece }: { piece: Piece }) {
  const folders = useFolders()
  const work = usePieceWork(piece.id)
  if (!isHere(folders)) return <NotYet of={folders} />
  const fixed = piece.task !== null && !piece.task.folderChangeable
  const shown = folders.data.filter((folder) =>
    fixed
      ? folder.id === piece.folder?.id
      : folder.pupilsFile && (!folder.owner || folder.owner.agreed),
  )
  const goOn = () => router.push(`/my-pieces/${piece.id}/tray`)
  return (
    <View style={{ flex: 1 }}>
      <MakeHead title={strings.steps[1]!} step={2} onOn={piece.folder ? goOn : undefined} />
      <Page
        foot={
          <BigButton
            label={piece.folder ? strings.goOn : strings.noFolder}
            symbol="forward"
            onPress={goOn}
            disabled={!piece.folder}
          />
        }
      >
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          <Text variant="bodyLarge" style={{ flex: 1 }}>
            {fixed ? strings.folderFixed : strings.folderHelp}
          </Text>
          <Listen text={fixed ? strings.folderFixed : strings.folderHelp} />
        </View>
        <PieceTrouble pieceId={piece.id} />
        <View role="radiogroup" aria-label={strings.steps[1]}>
          <Grid>
            {shown.map((folder) => (
              <FolderTile
                key={folder.id}
                folder={folder}
                chosen={folder.id === piece.folder?.id}
                onPress={() =>
                  void work.words({ ...wordsOf(piece), folderId: folder.id }, wordsOf(piece))
                }
              />
            ))}
          </Grid>
        </View>
      </Page>
    </View>
  )
}
