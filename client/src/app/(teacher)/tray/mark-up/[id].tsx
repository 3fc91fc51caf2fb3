import { inkScreen } from '../../../../screens'

export default inkScreen('MarkUpScreen')
