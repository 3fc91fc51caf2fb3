export { InvitationScreen as default } from '../../accounts/InvitationScreen'
