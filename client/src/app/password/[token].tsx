export { PasswordScreen as default } from '../../door/PasswordScreen'
