export { PegWallRoute as default } from '../accounts/routes'
