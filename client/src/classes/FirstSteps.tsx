import { router, type Href } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useSession } from '../accounts'
import { useFolders } from '../folders'
import { Box, Hint } from '../kit/form'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners, targets } from '../kit/theme'
import { useTasks } from '../tasks'
import { schoolStrings as strings, useClasses, useYears } from '../school'

/**
 * What an empty school needs, in order; each step leads to its screen. Gone once the first task is
 * set.
 */
export function FirstSteps() {
  const session = useSession()
  const years = useYears()
  const classes = useClasses()
  const folders = useFolders()
  const tasks = useTasks()
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
  const steps: { done: boolean; label: string; href: Href; lead?: true }[] = [
    { done: years.data.years.length > 0, label: strings.steps.year, href: '/year/new', lead: true },
    { done: own !== undefined, label: strings.steps.class, href: '/class/new', lead: true },
    {
      done: (own?.pupilCount ?? 0) > 0,
      label: strings.steps.pupils,
      href: `/class/list?classId=${own?.id ?? ''}`,
    },
    {
      done: folders.data.some(({ owner }) => !owner),
      label: strings.steps.folders,
      href: '/folders',
    },
    { done: tasks.data.length > 0, label: strings.steps.task, href: '/tasks/edit/new' },
  ]
  const next = steps.findIndex(({ done }) => !done)
  if (next < 0) return null
  return (
    <Box title={strings.steps.title}>
      {steps.map((step, i) => {
        const open = !step.done && i === next && (leads || !step.lead)
        return (
          <Press
            key={step.label}
            role="link"
            disabled={!open}
            label={step.done ? strings.steps.done(step.label) : step.label}
            onPress={() => router.push(step.href)}
            style={{
              flexDirection: 'row',
              alignItems: 'center',
              gap: 12,
              minHeight: targets.adult,
              paddingHorizontal: 10,
              borderRadius: corners.button,
              backgroundColor: open ? colours.aubergineTint : 'transparent',
            }}
          >
            <Symbol
              name={step.done ? 'tick' : 'untick'}
              size={24}
              colour={step.done ? colours.verdigris : colours.inkSoft}
            />
            <View style={{ flex: 1 }}>
              <Text variant={open ? 'titleSmall' : 'bodyMedium'}>{step.label}</Text>
            </View>
            {open ? <Symbol name="next" size={24} colour={colours.aubergine} /> : null}
          </Press>
        )
      })}
      {leads || next > 1 ? null : <Hint>{strings.noClassWait}</Hint>}
    </Box>
  )
}
