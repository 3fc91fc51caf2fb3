/** What stands before one is inside. */
export { FirstRunScreen } from '../door/FirstRunScreen'
export { InvitationScreen } from '../door/InvitationScreen'
export { PasswordScreen } from '../door/PasswordScreen'
export { PegWallRoute, SignInRoute } from '../door/routes'
