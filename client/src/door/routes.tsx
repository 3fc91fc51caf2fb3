import { Redirect } from 'expo-router'
import { ForPupil } from '../kit/forPupil'
import { START, useSession } from '../accounts'
import { PegWallScreen } from './PegWallScreen'
import { SignInScreen } from './SignInScreen'

/** Whoever is inside needs no door. */
function Outside({ children }: { children: React.ReactNode }) {
  const session = useSession()
  if (session.data?.firstRun) return <Redirect href="/first-run" />
  if (session.data?.person) return <Redirect href={START[session.data.person.role]} />
  return children
}

export const SignInRoute = () => (
  <Outside>
    <SignInScreen />
  </Outside>
)
export const PegWallRoute = () => (
  <Outside>
    <ForPupil value>
      <PegWallScreen />
    </ForPupil>
  </Outside>
)
