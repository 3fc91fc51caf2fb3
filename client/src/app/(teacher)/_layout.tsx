export { TeacherLayout as default } from '../../review/TeacherLayout'
