export { TaskScreen as default } from '../../../tasks/TaskScreen'
