import { Redirect } from 'expo-router'
import { isHere, NotYet } from '../kit/NotYet'
import { doorstep, useSession } from './session'
import { START } from './start'

/** The first address, and doors that those inside need not see. */
export function ToStart() {
  const session = useSession()
  if (!isHere(session)) return <NotYet of={session} />
  if (session.data.firstRun) return <Redirect href="/first-run" />
  return (
    <Redirect
      href={session.data.person ? START[session.data.person.role] : doorstep(session.data)}
    />
  )
}
