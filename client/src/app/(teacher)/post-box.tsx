export { PostBoxScreen as default } from '../../school/PostBoxScreen'
