import { Redirect } from 'expo-router'
import type { ReactNode } from 'react'
import { START, useSession } from '../accounts'

/** Whoever is inside needs no door. */
export function Outside({ children }: { children: ReactNode }) {
  const session = useSession()
  if (session.data?.firstRun) return <Redirect href="/first-run" />
  if (session.data?.person) return <Redirect href={START[session.data.person.role]} />
  return children
}
