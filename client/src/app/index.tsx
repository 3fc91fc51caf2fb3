export { ToStart as default } from '../accounts/Gate'
