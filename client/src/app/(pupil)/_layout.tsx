export { PupilLayout as default } from '../../desk/PupilLayout'
export { BrokenForPupil as ErrorBoundary } from '../../broken/Broken'
