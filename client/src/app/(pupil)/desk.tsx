export { DeskScreen as default } from '../../desk/DeskScreen'
