export { TasksScreen as default } from '../../../tasks/TasksScreen'
