export { SignInRoute as default } from '../door/SignInRoute'
