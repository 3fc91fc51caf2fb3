import { router, type Href } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useSession } from '../accounts'
import { useFolders } from '../folders'
import { BigButton } from '../kit/BigButton'
import { Box, Hint } from '../kit/form'
import { Bar } from '../kit/layout'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'
import { useTasks } from '../tasks'
import { useClasses, useYears } from '../school'
import { t } from './words'

/** What it tells from. */
export const useForFirstSteps = () => [useYears(), useClasses(), useFolders(), useTasks()] as const

/**
 * What an empty school needs, in order; each step leads to its screen. Gone when all is done, or put
 * away once pupils can work.
 */
export function FirstSteps() {
  const session = useSession()
  const [years, classes, folders, tasks] = useForFirstSteps()
  const [away, putAway] = usePutAway()
  if (
    !years.data ||
    !classes.data ||
    !folders.data ||
    !tasks.data ||
    session.data?.person?.role !== 'teacher'
  )
    return null
  const leads = session.data.person.leads
  const own = classes.data.find(({ mine }) => mine)
  const steps: Step[] = [
    { done: years.data.years.length > 0, label: t('steps.year'), href: '/year/new', lead: true },
    { done: own !== undefined, label: t('steps.class'), href: '/class/new', lead: true },
    {
      done: (own?.pupilCount ?? 0) > 0,
      label: t('steps.pupils'),
      href: `/class/list?classId=${own?.id ?? ''}`,
    },
    {
      done: folders.data.some(({ owner }) => !owner),
      label: t('steps.folders'),
      href: '/folders',
    },
    { done: tasks.data.length > 0, label: t('steps.task'), href: '/tasks/edit/new' },
    {
      done: own?.hasCards ?? false,
      label: t('steps.door'),
      href: `/class?classId=${own?.id ?? ''}`,
    },
    {
      done: own?.hasFamilies ?? false,
      label: t('steps.families'),
      href: `/class?classId=${own?.id ?? ''}`,
    },
  ]
  const next = steps.findIndex(({ done }) => !done)
  if (next < 0 || away) return null
  return (
    <Box title={t('steps.title')}>
      {steps.map((step, i) => (
        <StepRow
          key={step.label}
          step={step}
          open={!step.done && i === next && (leads || !step.lead)}
        />
      ))}
      {leads || next > 1 ? null : <Hint>{t('noClassWait')}</Hint>}
      {next >= PUPILS_CAN_WORK ? (
        <Bar wrap>
          <BigButton small tone="quiet" label={t('steps.away')} symbol="close" onPress={putAway} />
        </Bar>
      ) : null}
    </Box>
  )
}

type Step = { done: boolean; label: string; href: Href; lead?: true }

function StepRow({ step, open }: { step: Step; open: boolean }) {
  return (
    <Press
      role="link"
      disabled={!open}
      label={step.done ? t('steps.done', { label: step.label }) : step.label}
      onPress={() => router.push(step.href)}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: space.apart,
        minHeight: targets.adult,
        paddingHorizontal: 10,
        paddingVertical: 6,
        borderRadius: corners.button,
        backgroundColor: open ? colours.aubergineTint : 'transparent',
      }}
    >
      <DrawnSymbol
        name={step.done ? 'tick' : 'untick'}
        size={24}
        colour={step.done ? colours.verdigris : colours.inkSoft}
      />
      <View style={{ flex: 1 }}>
        <Text variant={open ? 'titleSmall' : 'bodyMedium'}>{step.label}</Text>
      </View>
      {open ? <DrawnSymbol name="next" size={24} colour={colours.aubergine} /> : null}
    </Press>
  )
}

/** From this step on one can do without the rest: a task is set, letting people in is all that is left. */
const PUPILS_CAN_WORK = 5
const AWAY = 'nibquill-first-steps-away'

/** For this browser: whoever does without cards or families is not asked every day. */
function usePutAway(): [boolean, () => void] {
  const [away, setAway] = useState(isAway)
  return [
    away,
    () => {
      setAway(true)
      try {
        localStorage.setItem(AWAY, 'yes')
      } catch {
        // Away until the page is opened anew.
      }
    },
  ]
}

function isAway(): boolean {
  try {
    return localStorage.getItem(AWAY) !== null
  } catch {
    return false
  }
}
