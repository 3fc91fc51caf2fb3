export { MyFolderScreen as default } from '../../../folders/MyFolderScreen'
