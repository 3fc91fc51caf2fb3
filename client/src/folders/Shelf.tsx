import type { Folder } from '@nibquill/contract'
import { Grid, Heading, Page } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { FolderTile } from './FolderTile'
import { useFolders } from './foldersQueries'
import { strings } from './strings'

/** Folders as they stand on a shelf. */
export function Shelf({
  title,
  onOpen,
  note,
}: {
  title: string
  onOpen: (folder: Folder) => void
  note: (folder: Folder) => string | undefined
}) {
  const folders = useFolders()
  if (folders.isPending) return <Loading />
  if (folders.isError) return <ProblemNotice error={folders.error} onRetry={() => void folders.refetch()} />
  return (
    <Page max={980}>
      <Heading level={1}>{title}</Heading>
      <Grid>
        {folders.data.map((folder) => (
          <FolderTile key={folder.id} folder={folder} onPress={() => onOpen(folder)} note={note(folder)} />
        ))}
      </Grid>
      {folders.data.length === 0 ? (
        <Empty symbol="folder" title={strings.empty}>
          {strings.emptyHelp}
        </Empty>
      ) : null}
    </Page>
  )
}
