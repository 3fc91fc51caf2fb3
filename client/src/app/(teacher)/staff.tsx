export { StaffScreen as default } from '../../staff/StaffScreen'
