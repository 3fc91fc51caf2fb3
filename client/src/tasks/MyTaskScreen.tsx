import type { Task } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { whenIsItDue } from '../kit/dates'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Empty, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'
import { strings as kitWords } from '../kit/strings'
import { colours, corners, shadow, stateColours, targets } from '../kit/theme'
import { Attachments } from '../media/Attachments'
import { strings } from './strings'
import { useTasks, useTick } from './tasksQueries'

/** A task opens on what to do, and one large way to start making. */
export function MyTaskScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const tasks = useTasks()
  if (!isHere(tasks)) return <NotYet of={tasks} />
  const task = tasks.data.find((candidate) => candidate.id === id)
  if (!task) {
    return (
      <Page>
        <Empty symbol="tasks" title={strings.gone} />
      </Page>
    )
  }
  const examples = task.media.filter(({ role }) => role === 'example')
  return (
    <Page foot={<WaysToStart task={task} />}>
      <Head title={task.title} back="/desk" pupil />
      <WhatToDo task={task} />
      {examples.length > 0 ? (
        <View style={{ gap: 8 }}>
          <Text variant="titleMedium">{strings.good}</Text>
          <Attachments items={examples} label={strings.good} />
        </View>
      ) : null}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
        <FolderDrawing folder={task.folder} width={104} />
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">{strings.folder(task.folder.name)}</Text>
          <Text variant="bodyLarge" style={{ color: colours.ochreText }}>
            {task.dueAt ? whenIsItDue(task.dueAt) : strings.noDue}
          </Text>
        </View>
      </View>
      <MyPart task={task} />
    </Page>
  )
}

/** What a task asks for stands forward; the other ways stand beside it. */
function WaysToStart({ task }: { task: Task }) {
  const asksFor = (kind: string) => task.asks.some((part) => part.kind === kind)
  const writes = asksFor('writing') && !asksFor('photo')
  return (
    <>
      <BigButton
        huge
        label={writes ? strings.startWriting : strings.start}
        symbol={writes ? 'pencil' : 'camera'}
        onPress={() => router.push(`/${writes ? 'write' : 'make'}?taskId=${task.id}`)}
      />
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <BigButton
          grow
          label={strings.pick}
          symbol="pictures"
          tone="quiet"
          onPress={() => router.push(`/make?taskId=${task.id}&pick=1`)}
        />
        <BigButton
          grow
          label={writes ? strings.photo : strings.write}
          symbol={writes ? 'camera' : 'pencil'}
          tone="quiet"
          onPress={() => router.push(`/${writes ? 'make' : 'write'}?taskId=${task.id}`)}
        />
      </View>
    </>
  )
}

function WhatToDo({ task }: { task: Task }) {
  const voices = task.media.filter(({ role }) => role === 'voice')
  const asked = task.asks.map(({ count, kind }) => strings.partAsked(count, kind)).join(', ')
  return (
    <View
      style={[
        { backgroundColor: colours.sheet, borderRadius: corners.button, padding: 20, gap: 12 },
        shadow,
      ]}
    >
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Text variant="bodyLarge" style={{ flex: 1, fontSize: 21, lineHeight: 32 }}>
          {task.instructions}
        </Text>
        {voices.length > 0 ? null : (
          <Listen
            text={[
              `${task.title}.`,
              task.instructions,
              asked ? `${strings.asked}: ${asked}.` : '',
            ].join(' ')}
          />
        )}
      </View>
      <Attachments items={voices} label={strings.hearTask} />
      <Attachments
        items={task.media.filter(({ role }) => role === 'material')}
        label={strings.lookAt}
      />
      {asked ? <Text variant="bodyLarge">{`${strings.asked}: ${asked}`}</Text> : null}
    </View>
  )
}

/** Mine in it: a reminder, a tick for what is done elsewhere, and what I have made. */
function MyPart({ task }: { task: Task }) {
  const tick = useTick(task.id)
  return (
    <>
      {task.nudgedAt && task.myPieces.length === 0 && !task.ticked ? (
        <Notice tone="again" symbol="nudge">
          {strings.reminded}
        </Notice>
      ) : null}
      {task.myPieces.length === 0 ? (
        <BigButton
          tone="quiet"
          symbol={task.ticked ? 'tick' : 'untick'}
          label={task.ticked ? strings.untick : strings.tick}
          busy={tick.isPending}
          onPress={() => tick.mutate(!task.ticked)}
        />
      ) : null}
      {tick.isError ? <ProblemNotice error={tick.error} /> : null}
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
    </>
  )
}
