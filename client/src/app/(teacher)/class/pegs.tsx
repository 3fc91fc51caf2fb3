export { PegsScreen as default } from '../../../classes/PegsScreen'
