export { PupilScreen as default } from '../../../school/PupilScreen'
