export { PupilScreen as default } from '../../../classes/PupilScreen'
