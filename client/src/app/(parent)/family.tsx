export { FamilyScreen as default } from '../../sharing/FamilyScreen'
