import type { Task } from '@nibquill/contract'
import { useQuery } from '@tanstack/react-query'
import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Head } from '../kit/Head'
import { Bar, Page, Stack, Tile } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Empty, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'

import { colours, space, stateColours, targets } from '../kit/theme'
import { Attachments } from '../media/Attachments'

import { inkQuery } from '../parts/inkQuery'
import { pickInto } from '../parts/pickedFiles'
import { useTasks, useTick } from './tasksQueries'
import { t } from './words'
import { t as kitWords } from '../kit/words'

/** A task opens on what to do, and one large way to start making. */
export function MyTaskScreen() {
  const { whenIsItDue } = useWhen()
  const { id } = useLocalSearchParams<{ id: string }>()
  const tasks = useTasks()
  if (!isHere(tasks)) return <NotYet of={tasks} />
  const task = tasks.data.find((candidate) => candidate.id === id)
  if (!task) {
    return (
      <Page>
        <Empty symbol="tasks" title={t('gone')} />
      </Page>
    )
  }
  const examples = task.media.filter(({ role }) => role === 'example')
  return (
    <Page foot={<WaysToStart task={task} />}>
      <Head title={task.title} back="/desk" pupil />
      <WhatToDo task={task} />
      {examples.length > 0 ? (
        <Stack gap="near">
          <Text variant="titleMedium">{t('good')}</Text>
          <Attachments items={examples} label={t('good')} />
        </Stack>
      ) : null}
      <Bar gap="clear">
        <FolderDrawing folder={task.folder} width={104} />
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">{t('folder', { name: task.folder.name })}</Text>
          <Text variant="bodyLarge" style={{ color: colours.ochreText }}>
            {task.dueAt ? whenIsItDue(task.dueAt) : t('noDue')}
          </Text>
        </View>
      </Bar>
      <MyPart task={task} />
    </Page>
  )
}

/** What a task asks for stands forward; the other ways stand beside it. */
function WaysToStart({ task }: { task: Task }) {
  const asksFor = (kind: string) => task.asks.some((part) => part.kind === kind)
  const writes = asksFor('writing') && !asksFor('photo')
  const says = asksFor('voice') && !asksFor('photo') && !writes
  // Fetched while one reads what to do: the sheet opens without a network as well.
  useQuery(inkQuery(task.sheet?.mediaId ?? ''))
  const draw = () => router.push(`/draw?taskId=${task.id}`)
  if (task.sheet)
    return (
      <>
        <BigButton huge label={t('openSheet')} symbol="quill" onPress={draw} />
        <BigButton
          label={t('start')}
          symbol="camera"
          tone="quiet"
          onPress={() => router.push(`/make?taskId=${task.id}`)}
        />
      </>
    )
  return (
    <>
      {says ? (
        <BigButton
          huge
          label={t('startSaying')}
          symbol="microphone"
          onPress={() => router.push(`/say?taskId=${task.id}`)}
        />
      ) : null}
      <BigButton
        huge={!says}
        tone={says ? 'quiet' : 'primary'}
        label={writes ? t('startWriting') : t('start')}
        symbol={writes ? 'pencil' : 'camera'}
        onPress={() => router.push(`/${writes ? 'write' : 'make'}?taskId=${task.id}`)}
      />
      <Bar align="stretch">
        <BigButton
          grow
          label={t('pick')}
          symbol="pictures"
          tone="quiet"
          onPress={() => void pickInto(`/make?taskId=${task.id}&pick=1`)}
        />
        <BigButton
          grow
          label={writes ? t('photo') : t('write')}
          symbol={writes ? 'camera' : 'pencil'}
          tone="quiet"
          onPress={() => router.push(`/${writes ? 'make' : 'write'}?taskId=${task.id}`)}
        />
        <BigButton grow label={t('draw')} symbol="quill" tone="quiet" onPress={draw} />
      </Bar>
    </>
  )
}

function WhatToDo({ task }: { task: Task }) {
  const voices = task.media.filter(({ role }) => role === 'voice')
  const asked = task.asks.map(({ count, kind }) => t('partAsked', { count, kind })).join(', ')
  return (
    <Tile style={{ padding: space.far }}>
      <Bar align="stretch">
        <Text variant="bodyLarge" style={{ flex: 1, fontSize: 21, lineHeight: 32 }}>
          {task.instructions}
        </Text>
        {voices.length > 0 ? null : (
          <Listen
            text={[
              `${task.title}.`,
              task.instructions,
              asked ? `${t('asked')}: ${asked}.` : '',
            ].join(' ')}
          />
        )}
      </Bar>
      <Attachments items={voices} label={t('hearTask')} />
      <Attachments
        items={task.media.filter(({ role }) => role === 'material')}
        label={t('lookAt')}
      />
      {asked ? <Text variant="bodyLarge">{`${t('asked')}: ${asked}`}</Text> : null}
    </Tile>
  )
}

/** Mine in it: a reminder, a tick for what is done elsewhere, and what I have made. */
function MyPart({ task }: { task: Task }) {
  const tick = useTick(task.id)
  return (
    <>
      {task.nudgedAt && task.myPieces.length === 0 && !task.ticked ? (
        <Notice tone="attention" symbol="nudge">
          {t('reminded')}
        </Notice>
      ) : null}
      {task.myPieces.length === 0 ? (
        <BigButton
          tone="quiet"
          symbol={task.ticked ? 'tick' : 'untick'}
          label={task.ticked ? t('untick') : t('tick')}
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
          >{`${t('myPieces')}: ${kitWords(`states.${piece.state}`)}`}</Text>
        </Press>
      ))}
    </>
  )
}
