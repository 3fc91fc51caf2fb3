export { PupilLayout as default } from '../../pieces/PupilLayout'
