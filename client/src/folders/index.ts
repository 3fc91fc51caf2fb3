/** What other capabilities use of this one. */
export { FolderTile } from './FolderTile'
export { OpenFolder } from './OpenFolder'
export { useFolders, useKeepIn, useKeptIn } from './foldersQueries'
