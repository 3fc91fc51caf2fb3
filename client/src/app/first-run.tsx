export { FirstRunScreen as default } from '../door/FirstRunScreen'
