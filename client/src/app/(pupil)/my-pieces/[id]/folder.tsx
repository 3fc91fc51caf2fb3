export { WhichFolderScreen as default } from '../../../../pieces/WhichFolderScreen'
