import type { Task } from '@nibquill/contract'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { whenIsItDue } from '../kit/dates'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Heading, Page } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { colours, corners, shadow, stateColours } from '../kit/theme'
import { strings } from './strings'
import { useTasks } from './tasksQueries'

/** A teacher's open tasks, each with how far its class is. */
export function TasksScreen() {
  const tasks = useTasks()
  if (tasks.isPending) return <Loading />
  if (tasks.isError) return <ProblemNotice error={tasks.error} onRetry={() => void tasks.refetch()} />
  return (
    <Page max={980}>
      <Heading level={1}>{strings.title}</Heading>
      {tasks.data.map((task) => (
        <TaskCard key={task.id} task={task} />
      ))}
      {tasks.data.length === 0 ? (
        <Empty symbol="tasks" title={strings.empty}>
          {strings.emptyHelp}
        </Empty>
      ) : null}
    </Page>
  )
}

function TaskCard({ task }: { task: Task }) {
  const counts = task.counts ?? { pupils: 0, draft: 0, submitted: 0, returned: 0, approved: 0 }
  const none = counts.pupils - counts.draft - counts.submitted - counts.returned - counts.approved
  const bars = [
    { key: 'approved', count: counts.approved, colour: stateColours.approved.mark },
    { key: 'submitted', count: counts.submitted, colour: stateColours.submitted.mark },
    { key: 'returned', count: counts.returned, colour: stateColours.returned.mark },
    { key: 'draft', count: counts.draft, colour: colours.inkSoft },
    { key: 'none', count: none, colour: colours.rule },
  ] as const
  return (
    <View
      role="article"
      aria-label={task.title}
      style={[{ backgroundColor: colours.sheet, borderRadius: corners.button, padding: 18, gap: 12 }, shadow]}
    >
      <View style={{ flexDirection: 'row', gap: 16, alignItems: 'center' }}>
        <FolderDrawing folder={task.folder} width={84} />
        <View style={{ flex: 1 }}>
          <Text role="heading" aria-level={2} variant="titleLarge">
            {task.title}
          </Text>
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
            {[task.className, task.folder.name, task.dueAt ? whenIsItDue(task.dueAt) : strings.noDue].join(' · ')}
          </Text>
        </View>
      </View>
      <Text variant="bodyMedium">{task.instructions}</Text>
      <View aria-hidden style={{ flexDirection: 'row', height: 14, borderRadius: 7, overflow: 'hidden', gap: 2 }}>
        {bars
          .filter(({ count }) => count > 0)
          .map(({ key, count, colour }) => (
            <View key={key} style={{ flex: count, backgroundColor: colour }} />
          ))}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }}>
        {bars.map(({ key, count, colour }) => (
          <View key={key} style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
            <View style={{ width: 12, height: 12, borderRadius: 3, backgroundColor: colour }} />
            <Text variant="bodySmall">{`${count} ${strings.counts[key]}`}</Text>
          </View>
        ))}
      </View>
    </View>
  )
}
