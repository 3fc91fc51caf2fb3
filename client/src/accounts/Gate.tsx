import { Redirect, router, Slot, usePathname } from 'expo-router'
import { useCallback } from 'react'
import { View } from 'react-native'
import { useLive } from '../api/useLive'
import { Loading, ProblemNotice } from '../kit/Notice'
import { colours } from '../kit/theme'
import { useSession, useSignOut } from './session'
import { noteIdle, useIdleSignOut } from './useIdleSignOut'

/** Where each role begins. */
export const START = { pupil: '/desk', teacher: '/tray', office: '/class', parent: '/family' } as const

/** Lets everyone to their own pages, and nobody else's. */
export function Gate({ roles }: { roles: readonly (keyof typeof START)[] }) {
  const session = useSession()
  const signOut = useSignOut()
  const path = usePathname()
  const person = session.data?.person ?? null
  useLive(person !== null)
  const leave = signOut.mutate
  const onIdle = useCallback(() => {
    noteIdle()
    leave(undefined, { onSettled: () => router.replace('/sign-in') })
  }, [leave])
  useIdleSignOut(person?.idleMinutes ?? null, onIdle)
  if (session.isPending) return <Loading />
  if (session.isError) return <ProblemNotice error={session.error} onRetry={() => void session.refetch()} />
  if (session.data.firstRun) return <Redirect href="/first-run" />
  if (!person) return <Redirect href="/sign-in" />
  if (!roles.includes(person.role)) return path === START[person.role] ? null : <Redirect href={START[person.role]} />
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <Slot />
    </View>
  )
}

/** The first address, and doors that those inside need not see. */
export function ToStart() {
  const session = useSession()
  if (session.isPending) return <Loading />
  if (session.isError) return <ProblemNotice error={session.error} onRetry={() => void session.refetch()} />
  if (session.data.firstRun) return <Redirect href="/first-run" />
  return <Redirect href={session.data.person ? START[session.data.person.role] : '/sign-in'} />
}
