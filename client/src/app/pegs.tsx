export { PegWallRoute as default } from '../door/routes'
