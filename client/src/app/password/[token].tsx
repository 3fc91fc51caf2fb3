export { PasswordScreen as default } from '../../accounts/PasswordScreen'
