import { teacherScreen } from '../../screens'

export { Broken as ErrorBoundary } from '../../broken/Broken'
export default teacherScreen('TeacherLayout')
