import { doorScreen } from '../screens'

export default doorScreen('FirstRunScreen')
