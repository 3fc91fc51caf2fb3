import type { Piece } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { FolderTile, useFolders } from '../folders'
import { BigButton } from '../kit/BigButton'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Bar, Grid, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'
import { wordsOf } from '../outbox/senders'
import { usePieceWork } from '../pieces'
import { t } from './words'

/** Where a piece goes: the task's folder is chosen already, and can be changed where it allows. */
export function WhichFolder({ piece, young }: { piece: Piece; young: boolean }) {
  const [open, setOpen] = useState(piece.folder === null)
  const fixed = piece.task !== null && !piece.task.folderChangeable
  if (young && piece.folder)
    return (
      <Stack role="group" aria-label={t('whichFolder')} style={{ alignItems: 'center' }}>
        <Press
          label={fixed ? t('goesInto', { folder: piece.folder.name }) : t('otherFolder')}
          disabled={fixed}
          onPress={() => setOpen(!open)}
          style={{ alignItems: 'center' }}
        >
          <FolderDrawing folder={piece.folder} width={190} />
        </Press>
        <Bar gap="close">
          <Text variant="titleMedium">{piece.folder.name}</Text>
          <Listen text={t('goesInto', { folder: piece.folder.name })} />
        </Bar>
        {open ? (
          <View style={{ width: '100%' }}>
            <Shelf piece={piece} onChosen={() => setOpen(false)} />
          </View>
        ) : null}
      </Stack>
    )
  return (
    <Stack role="group" aria-label={t('whichFolder')}>
      <Bar gap="apart">
        {piece.folder ? <FolderDrawing folder={piece.folder} width={92} /> : null}
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">
            {piece.folder ? t('goesInto', { folder: piece.folder.name }) : t('folderHelp')}
          </Text>
          {fixed ? <Text variant="bodyMedium">{t('folderFixed')}</Text> : null}
        </View>
        <Listen
          text={piece.folder ? t('goesInto', { folder: piece.folder.name }) : t('folderHelp')}
        />
      </Bar>
      {!fixed && !open ? (
        <View style={{ alignItems: 'flex-start' }}>
          <BigButton
            small
            tone="quiet"
            symbol="folder"
            label={t('otherFolder')}
            onPress={() => setOpen(true)}
          />
        </View>
      ) : null}
      {open ? <Shelf piece={piece} onChosen={() => young && setOpen(false)} /> : null}
    </Stack>
  )
}

function Shelf({ piece, onChosen }: { piece: Piece; onChosen: () => void }) {
  const folders = useFolders()
  const work = usePieceWork(piece.id)
  if (!isHere(folders)) return <NotYet of={folders} />
  return (
    <View role="radiogroup" aria-label={t('whichFolder')}>
      <Grid>
        {folders.data
          .filter(({ pupilsFile, owner }) => pupilsFile && (!owner || owner.agreed))
          .map((folder) => (
            <FolderTile
              key={folder.id}
              folder={folder}
              chosen={folder.id === piece.folder?.id}
              onPress={() => {
                void work.words({ ...wordsOf(piece), folderId: folder.id }, wordsOf(piece))
                onChosen()
              }}
            />
          ))}
      </Grid>
    </View>
  )
}
