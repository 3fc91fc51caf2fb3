import { pupilScreen } from '../../../../screens'

export default pupilScreen('KeepScreen')
