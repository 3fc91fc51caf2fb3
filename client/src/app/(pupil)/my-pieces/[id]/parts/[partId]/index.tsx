export { PartScreen as default } from '../../../../../../parts/PartScreen'
