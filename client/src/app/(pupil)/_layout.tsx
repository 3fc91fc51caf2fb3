import { pupilScreen } from '../../screens'

export { BrokenForPupil as ErrorBoundary } from '../../broken/Broken'
export default pupilScreen('PupilLayout')
