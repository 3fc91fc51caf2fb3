import { Outside } from './Outside'
import { SignInScreen } from './SignInScreen'

export const SignInRoute = () => (
  <Outside>
    <SignInScreen />
  </Outside>
)
