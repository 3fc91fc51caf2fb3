export { StaffScreen as default } from '../../school/StaffScreen'
