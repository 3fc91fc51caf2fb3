export { FolderScreen as default } from '../../../folders/FolderScreen'
