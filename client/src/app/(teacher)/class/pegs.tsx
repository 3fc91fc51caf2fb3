export { PegsScreen as default } from '../../../school/PegsScreen'
