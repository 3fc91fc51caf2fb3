import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { FolderTile, useFolders, useKeepIn } from '../folders'
import { Head } from '../kit/Head'
import { Bar, Grid, Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { isHere, NotYet } from '../kit/NotYet'
import { sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { WithPiece } from '../pieces'
import { useKept } from './KeptBox'
import { t } from './words'

/** One question: which folder on my shelf shall it lie in? */
export function KeepScreen() {
  return <WithPiece>{(piece) => <Keep piece={piece} />}</WithPiece>
}

function Keep({ piece }: { piece: Piece }) {
  const folders = useFolders()
  const { where } = useKept(piece)
  const keep = useKeepIn(piece.id)
  const back = `/my-pieces/${piece.id}` as const
  if (!isHere(folders)) return <NotYet of={folders} />
  const before = where ?? piece.folder
  const put = async (folderId: string, name: string) => {
    // Where it was approved into nothing has to be remembered.
    const place = (id: string) => (id === piece.folder?.id ? null : id)
    try {
      await keep.mutateAsync(place(folderId))
    } catch (error) {
      return toast(sentenceOf(error))
    }
    if (router.canGoBack()) router.back()
    else router.replace(back)
    const undo = () =>
      void keep
        .mutateAsync(before ? place(before.id) : null)
        .catch((error: unknown) => toast(sentenceOf(error)))
    toast(t('keptNow', { folder: name }), { undo })
  }
  return (
    <Page max={980}>
      <Head pupil title={t('keepTitle')} back={back} />
      <Bar gap="close">
        <Text variant="bodyLarge" style={{ flex: 1 }}>
          {t('keepHelp')}
        </Text>
        <Listen text={`${t('keepTitle')} ${t('keepHelp')}`} />
      </Bar>
      <View role="radiogroup" aria-label={t('keepTitle')}>
        <Grid>
          {folders.data
            .filter(
              ({ id, pupilsFile, owner }) =>
                id === piece.folder?.id || (pupilsFile && (!owner || owner.agreed)),
            )
            .map((folder) => (
              <FolderTile
                key={folder.id}
                folder={folder}
                chosen={folder.id === before?.id}
                onPress={() => !keep.isPending && void put(folder.id, folder.name)}
              />
            ))}
        </Grid>
      </View>
    </Page>
  )
}
