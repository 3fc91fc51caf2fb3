export { PostBoxScreen as default } from '../../staff/PostBoxScreen'
