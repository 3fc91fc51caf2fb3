export { ClassNewScreen as default } from '../../../school/ClassNewScreen'
