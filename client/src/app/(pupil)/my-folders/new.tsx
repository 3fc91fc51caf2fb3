export { ProposeFolderScreen as default } from '../../../folders/ProposeFolderScreen'
