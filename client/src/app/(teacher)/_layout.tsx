export { TeacherLayout as default } from '../../review/TeacherLayout'
export { Broken as ErrorBoundary } from '../../broken/Broken'
