export { SignInRoute as default } from '../door/routes'
