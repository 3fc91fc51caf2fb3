export { MyFoldersScreen as default } from '../../../folders/MyFoldersScreen'
