import { router } from 'expo-router'
import { accountsStrings as accountWords, PlacesLayout, useSession, useSignOut } from '../accounts'
import { RoundButton } from '../kit/RoundButton'
import { colours } from '../kit/theme'
import { strings } from './strings'
import { useTray } from './reviewQueries'

/** A teacher's places; the tray says how much waits. */
export function TeacherLayout() {
  const session = useSession()
  return session.data?.person?.role === 'teacher' ? (
    <WithCount />
  ) : (
    <PlacesLayout places={OFFICE_PLACES} roles={['teacher', 'office']} />
  )
}

const PLACES = [
  { href: '/tray', label: strings.tray, symbol: 'tray' },
  { href: '/class', label: strings.class, symbol: 'class' },
  { href: '/tasks', label: strings.tasks, symbol: 'tasks' },
  { href: '/folders', label: strings.folders, symbol: 'folder' },
  { href: '/year', label: strings.year, symbol: 'year' },
] as const

/** The office lead teaches nobody: no tray, no tasks. */
const OFFICE_PLACES = PLACES.filter(({ href }) => href !== '/tray' && href !== '/tasks')

function WithCount() {
  const tray = useTray()
  const signOut = useSignOut()
  const count = tray.data?.pages[0]?.waiting
  const leave = () => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })
  return (
    <PlacesLayout
      places={PLACES.map((place) => (place.href === '/tray' ? { ...place, count } : place))}
      roles={['teacher', 'office']}
      extra={
        <>
          <RoundButton
            label={accountWords.account}
            symbol="key"
            colour={colours.inkSoft}
            onPress={() => router.push('/account')}
          />
          <RoundButton
            label={strings.signOut}
            symbol="out"
            colour={colours.inkSoft}
            onPress={leave}
          />
        </>
      }
    />
  )
}
