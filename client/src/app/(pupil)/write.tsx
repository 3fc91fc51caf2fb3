export { WriteScreen as default } from '../../parts/WriteScreen'
