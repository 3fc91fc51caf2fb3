import { ForPupil } from '../kit/forPupil'
import { Outside } from './Outside'
import { PegWallScreen } from './PegWallScreen'

export const PegWallRoute = () => (
  <Outside>
    <ForPupil value>
      <PegWallScreen />
    </ForPupil>
  </Outside>
)
