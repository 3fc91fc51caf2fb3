export { ToStart as default } from '../accounts/ToStart'
