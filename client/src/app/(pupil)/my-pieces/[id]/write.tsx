export { WriteScreen as default } from '../../../../making/WriteScreen'
