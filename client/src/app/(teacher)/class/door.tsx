export { DoorScreen as default } from '../../../accounts/DoorScreen'
