export { MyTaskScreen as default } from '../../../tasks/MyTaskScreen'
