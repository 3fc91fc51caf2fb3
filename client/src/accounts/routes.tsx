import { Redirect } from 'expo-router'
import { START } from './Gate'
import { useSession } from './session'
import { SignInScreen } from './SignInScreen'

/** Whoever is inside needs no door. */
export function SignInRoute() {
  const session = useSession()
  if (session.data?.firstRun) return <Redirect href="/first-run" />
  if (session.data?.person) return <Redirect href={START[session.data.person.role]} />
  return <SignInScreen />
}
