export { TidyPartScreen as default } from '../../../../../../making/TidyPartScreen'
