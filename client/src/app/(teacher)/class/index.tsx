export { ClassScreen as default } from '../../../classes/ClassScreen'
