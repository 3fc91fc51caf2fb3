export { NoticesScreen as default } from '../../notices/NoticesScreen'
