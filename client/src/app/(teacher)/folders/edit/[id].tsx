export { FolderEditScreen as default } from '../../../../folders/FolderEditScreen'
