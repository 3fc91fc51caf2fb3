import { teacherScreen } from '../../../../screens'

export default teacherScreen('AdministrationScreen')
