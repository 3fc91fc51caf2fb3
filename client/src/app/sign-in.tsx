export { SignInRoute as default } from '../accounts/routes'
