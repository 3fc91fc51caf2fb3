import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { whenIsItDue } from '../kit/dates'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Heading, Page } from '../kit/layout'
import { Empty, Listen, Loading, ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { strings as kitWords } from '../kit/strings'
import { Symbol } from '../kit/Symbol'
import { colours, corners, shadow, stateColours, targets } from '../kit/theme'
import { strings } from './strings'
import { useTasks } from './tasksQueries'

/** A task opens on what to do, and one large way to start making. */
export function MyTaskScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const tasks = useTasks()
  if (tasks.isPending) return <Loading />
  if (tasks.isError) return <ProblemNotice error={tasks.error} onRetry={() => void tasks.refetch()} />
  const task = tasks.data.find((candidate) => candidate.id === id)
  if (!task) {
    return (
      <Page>
        <Empty symbol="tasks" title={strings.gone} />
      </Page>
    )
  }
  return (
    <Page
      foot={
        <>
          <BigButton label={strings.start} symbol="camera" onPress={() => router.push(`/make?taskId=${task.id}`)} />
          <BigButton
            label={strings.pick}
            symbol="pictures"
            tone="quiet"
            onPress={() => router.push(`/make?taskId=${task.id}&pick=1`)}
          />
        </>
      }
    >
      <Head title={task.title} back="/desk" pupil />
      <View style={[{ backgroundColor: colours.sheet, borderRadius: corners.button, padding: 20, gap: 12 }, shadow]}>
        <View style={{ flexDirection: 'row', gap: 10 }}>
          <Text variant="bodyLarge" style={{ flex: 1, fontSize: 21, lineHeight: 32 }}>
            {task.instructions}
          </Text>
          <Listen text={`${task.title}. ${task.instructions}`} />
        </View>
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
        <FolderDrawing folder={task.folder} width={104} />
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">{strings.folder(task.folder.name)}</Text>
          <Text variant="bodyLarge" style={{ color: colours.ochreText }}>
            {task.dueAt ? whenIsItDue(task.dueAt) : strings.noDue}
          </Text>
        </View>
      </View>
      {task.myPieces.map((piece) => (
        <Press
          key={piece.id}
          onPress={() => router.push(`/my-pieces/${piece.id}`)}
          style={{ minHeight: targets.pupil, justifyContent: 'center' }}
        >
          <Text
            variant="titleSmall"
            style={{ color: stateColours[piece.state].text }}
          >{`${strings.myPieces}: ${kitWords.states[piece.state]}`}</Text>
        </Press>
      ))}
    </Page>
  )
}
