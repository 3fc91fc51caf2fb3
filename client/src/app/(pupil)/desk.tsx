export { DeskScreen as default } from '../../pieces/DeskScreen'
