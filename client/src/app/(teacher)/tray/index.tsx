export { TrayScreen as default } from '../../../review/TrayScreen'
