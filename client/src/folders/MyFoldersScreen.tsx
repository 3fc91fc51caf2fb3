import { router } from 'expo-router'
import { useSession } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Grid, Heading, Page } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { FolderTile } from './FolderTile'
import { useFolders } from './foldersQueries'
import { t } from './words'

/**
 * A pupil's folders as they stand on a shelf; where the teacher allows it, with a way to wish for
 * one of their own.
 */
export function MyFoldersScreen() {
  const folders = useFolders()
  const session = useSession()
  if (!isHere(folders)) return <NotYet of={folders} />
  return (
    <Page max={980}>
      <Heading level={1}>{t('mine')}</Heading>
      <Grid>
        {folders.data.map((folder) => (
          <FolderTile
            key={folder.id}
            folder={folder}
            onPress={() => router.push(`/my-folders/${folder.id}`)}
            note={folder.owner && !folder.owner.agreed ? t('waitsFor') : undefined}
          />
        ))}
      </Grid>
      {folders.data.length === 0 ? (
        <Empty symbol="folder" title={t('empty')}>
          {t('emptyHelp')}
        </Empty>
      ) : null}
      {session.data?.person?.mayPropose ? (
        <BigButton
          tone="quiet"
          symbol="plus"
          label={t('propose')}
          onPress={() => router.push('/my-folders/new')}
        />
      ) : null}
    </Page>
  )
}
