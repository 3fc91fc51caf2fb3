export { PupilLayout as default } from '../../pieces/PupilLayout'
export { BrokenForPupil as ErrorBoundary } from '../../broken/Broken'
