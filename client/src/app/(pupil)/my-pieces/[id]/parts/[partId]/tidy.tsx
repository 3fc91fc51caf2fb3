export { TidyPartScreen as default } from '../../../../../../parts/TidyPartScreen'
