export { DoorScreen as default } from '../../../door/DoorScreen'
