export { ClassScreen as default } from '../../../school/ClassScreen'
