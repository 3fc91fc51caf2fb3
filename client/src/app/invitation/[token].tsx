export { InvitationScreen as default } from '../../door/InvitationScreen'
