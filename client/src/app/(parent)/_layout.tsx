import { familyScreen } from '../../screens'

export { Broken as ErrorBoundary } from '../../broken/Broken'
export default familyScreen('ParentLayout')
