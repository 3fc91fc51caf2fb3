import { useEffect } from 'react'
import { router } from 'expo-router'
import { accountsWords, alsoForget, useSession, useSignOut } from '../accounts'
import { PlacesLayout } from '../places'
import { forgetSitting } from './sittingStore'
import { forgetUnsent } from './unsentWords'
import { RoundButton } from '../kit/RoundButton'
import { colours } from '../kit/theme'

import { useTray } from './reviewQueries'
import { t } from './words'

/** A teacher's places; the tray says how much waits. */
export function TeacherLayout() {
  useForgetLeaving()
  const role = useSession().data?.person?.role
  const tray = useTray({}, { enabled: role === 'teacher' })
  const signOut = useSignOut()
  const count = tray.data?.pages[0]?.waiting
  const leave = () => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })
  // One tree for both, and while it is asked who is here: what is on screen stays.
  const office = role === 'office'
  return (
    <PlacesLayout
      places={
        office
          ? OFFICE_PLACES
          : PLACES.map((place) => (place.href === '/tray' ? { ...place, count } : place))
      }
      roles={['teacher', 'office']}
      extra={
        office ? null : (
          <>
            <RoundButton
              label={accountsWords('account')}
              symbol="key"
              colour={colours.inkSoft}
              onPress={() => router.push('/account')}
            />
            <RoundButton
              label={t('signOut')}
              symbol="out"
              colour={colours.inkSoft}
              onPress={leave}
            />
          </>
        )
      }
    />
  )
}

const PLACES = [
  { href: '/tray', label: t('tray'), symbol: 'tray' },
  { href: '/class', label: t('class'), symbol: 'class' },
  { href: '/tasks', label: t('tasks'), symbol: 'tasks' },
  { href: '/folders', label: t('folders'), symbol: 'folder' },
  { href: '/year', label: t('year'), symbol: 'year' },
] as const

/** The office lead teaches nobody: no tray, no tasks. */
const OFFICE_PLACES = PLACES.filter(({ href }) => href !== '/tray' && href !== '/tasks')

const forgetLeaving = () => {
  forgetSitting()
  forgetUnsent()
}
// By another tab somebody may leave and somebody else come, and this stays on screen.
alsoForget(forgetLeaving)
/** What one was in the middle of is not there for whoever comes next. */
function useForgetLeaving(): void {
  useEffect(() => forgetLeaving, [])
}
