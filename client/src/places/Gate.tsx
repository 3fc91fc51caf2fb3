import type { SignedInPerson } from '@nibquill/contract'
import { useQueryClient } from '@tanstack/react-query'
import { Navigator, Redirect, Slot, usePathname } from 'expo-router'
import { useCallback, useEffect, useState } from 'react'
import { View } from 'react-native'
import { useLive } from '../api/useLive'
import { Ask } from '../kit/Ask'
import { isHere, NotYet } from '../kit/NotYet'
import { colours } from '../kit/theme'
import {
  doorstep,
  followOtherTabs,
  noteIdle,
  START,
  useHandOver,
  useHandOverStage,
  useIdle,
  useSession,
} from '../accounts'
import { HandOverCover } from './HandOverCover'
import { t } from './words'

/**
 * Whether somebody else is here than was, by another tab of this browser, and is not yet where they
 * begin.
 */
function useIsAnother(person: SignedInPerson | null): boolean {
  const path = usePathname()
  const [before, setBefore] = useState(person?.id)
  const isAnother = person !== null && before !== undefined && person.id !== before
  const isThere = !isAnother || path === START[person.role]
  useEffect(() => {
    if (person && isThere) setBefore(person.id)
  }, [person, isThere])
  return isAnother && !isThere
}

type Props = { roles: readonly (keyof typeof START)[] }

/**
 * Lets everyone to their own pages, and nobody else's. Where one stands is kept while it is asked who
 * is here: with the navigator gone, the first page by the alphabet would come back.
 */
export function Gate({ roles }: Props) {
  return (
    <Navigator>
      <Guarded roles={roles} />
    </Navigator>
  )
}

function Guarded({ roles }: Props) {
  const session = useSession()
  const queries = useQueryClient()
  const path = usePathname()
  const stage = useHandOverStage()
  const { handOver, leaveBehind, goBack } = useHandOver()
  const [leftLying, setLeftLying] = useState(false)
  const person = session.data?.person ?? null
  const isAnother = useIsAnother(person)
  useLive(person !== null)
  useEffect(() => followOtherTabs(queries), [queries])
  const onIdle = useCallback(() => {
    noteIdle()
    setLeftLying(true)
    void handOver()
    // The newest one is not needed: it reads what it needs when it runs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  const asking = useIdle(stage === 'none' ? (person?.idleMinutes ?? null) : null, onIdle)
  if (!isHere(session)) return <NotYet of={session} />
  if (session.data.firstRun) return <Redirect href="/first-run" />
  if (!person) return <Redirect href={doorstep(session.data)} />
  if (isAnother) return <Redirect href={START[person.role]} />
  if (!roles.includes(person.role))
    return path === START[person.role] ? null : <Redirect href={START[person.role]} />
  const covered = stage !== 'none'
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      {/* Screens stay while their work is kept, out of sight and out of reach. */}
      <View style={{ flex: 1, display: covered ? 'none' : 'flex' }}>
        <Slot />
      </View>
      {covered ? (
        <HandOverCover
          name={person.firstName}
          stage={stage}
          onLeaveBehind={leaveBehind}
          onBack={leftLying ? null : goBack}
        />
      ) : null}
      <Ask
        visible={asking}
        title={t('stillThere')}
        yes={t('iAmHere')}
        no={t('signOut')}
        onYes={() => undefined}
        onNo={onIdle}
      >
        {t('stillThereHelp')}
      </Ask>
    </View>
  )
}
