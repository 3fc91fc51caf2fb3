export { ClassNewScreen as default } from '../../../classes/ClassNewScreen'
