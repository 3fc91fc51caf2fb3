/** What stands before one is inside, but for the door itself: it is there at once. */
export { FirstRunScreen } from '../door/FirstRunScreen'
export { InvitationScreen } from '../door/InvitationScreen'
export { PasswordScreen } from '../door/PasswordScreen'
export { PegWallRoute } from '../door/PegWallRoute'
