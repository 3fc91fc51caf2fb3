export { ParentLayout as default } from '../../sharing/ParentLayout'
export { Broken as ErrorBoundary } from '../../broken/Broken'
