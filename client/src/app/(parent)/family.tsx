import { familyScreen } from '../../screens'

export default familyScreen('FamilyScreen')
