export { WhichFolderScreen as default } from '../../../../making/WhichFolderScreen'
