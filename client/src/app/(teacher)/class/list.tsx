export { ClassListScreen as default } from '../../../school/ClassListScreen'
