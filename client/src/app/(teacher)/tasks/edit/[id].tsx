export { TaskEditScreen as default } from '../../../../tasks/TaskEditScreen'
