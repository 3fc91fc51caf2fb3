export { ParentLayout as default } from '../../sharing/ParentLayout'
