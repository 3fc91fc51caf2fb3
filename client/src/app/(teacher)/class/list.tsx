export { ClassListScreen as default } from '../../../lists/ClassListScreen'
