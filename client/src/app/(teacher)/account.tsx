export { AccountScreen as default } from '../../accounts/AccountScreen'
