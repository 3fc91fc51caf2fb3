export { FirstRunScreen as default } from '../accounts/FirstRunScreen'
