export { PartScreen as default } from '../../../../../../making/PartScreen'
