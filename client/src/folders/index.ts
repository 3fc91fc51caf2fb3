/** What other capabilities use of this one. */
export { FolderTile } from './FolderTile'
export { useFolders } from './foldersQueries'
