import { familyScreen } from '../../screens'

export default familyScreen('LinkedPieceScreen')
