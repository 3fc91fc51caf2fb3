import type { Standing, Task } from '@nibquill/contract'
import { owes } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { schoolNow } from '../kit/clock'
import { BigButton } from '../kit/BigButton'
import { whenIsItDue, whenItOpens, whenWasIt } from '../kit/dates'
import { Box, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { Attachments } from '../media/Attachments'
import { TaskBar } from './TasksScreen'
import { strings } from './strings'
import { useMoveTask, useNudge, useStandings, useTask } from './tasksQueries'

/**
 * One task for its teacher: what it says, who has not handed in, and a reminder for their desks.
 */
export function TaskScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const task = useTask(id)
  if (!isHere(task)) return <NotYet of={task} />
  const about = [
    task.data.className,
    task.data.unit?.title ?? '',
    task.data.folder.name,
    task.data.opensAt && new Date(task.data.opensAt) > schoolNow()
      ? strings.opens(whenItOpens(task.data.opensAt))
      : '',
    task.data.dueAt ? whenIsItDue(task.data.dueAt) : strings.noDue,
    task.data.closed ? strings.closed : '',
  ]
  return (
    <Page max={900}>
      <Head title={task.data.title} back="/tasks" />
      <Hint>{about.filter(Boolean).join(' · ')}</Hint>
      <Moves task={task.data} />
      <Box>
        {task.data.instructions ? <Text variant="bodyMedium">{task.data.instructions}</Text> : null}
        <Attachments
          items={task.data.media.filter(({ role }) => role !== 'example')}
          label={strings.material}
        />
        <Attachments
          items={task.data.media.filter(({ role }) => role === 'example')}
          label={strings.example}
        />
        <TaskBar task={task.data} />
      </Box>
      <Standings taskId={id} closed={task.data.closed} />
    </Page>
  )
}

function Moves({ task }: { task: Task }) {
  const move = useMoveTask()
  const { id } = task
  const copy = () =>
    move.mutate(
      { id, move: 'duplicate' },
      {
        onSuccess: (made) => {
          toast(strings.duplicated)
          router.push(`/tasks/edit/${made.id}`)
        },
      },
    )
  return (
    <>
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol="edit"
          label={strings.edit}
          onPress={() => router.push(`/tasks/edit/${id}`)}
        />
        <BigButton
          small
          tone="quiet"
          symbol="duplicate"
          label={strings.duplicate}
          busy={move.isPending}
          onPress={copy}
        />
        <BigButton
          small
          tone="quiet"
          symbol={task.closed ? 'take-out' : 'lock'}
          label={task.closed ? strings.reopen : strings.close}
          onPress={() => move.mutate({ id, move: task.closed ? 'open' : 'close' })}
        />
      </Row>
      {move.isError ? <ProblemNotice error={move.error} /> : null}
    </>
  )
}

function Standings({ taskId, closed }: { taskId: string; closed: boolean }) {
  const standings = useStandings(taskId)
  const nudge = useNudge(taskId)
  const [left, setLeft] = useState<readonly string[]>([])
  if (!isHere(standings)) return <NotYet of={standings} />
  const owing = standings.data.filter(({ standing }) => owes(standing))
  const rest = standings.data.filter(({ standing }) => !owes(standing))
  const chosen = owing.map(({ pupil }) => pupil.id).filter((id) => !left.includes(id))
  const toggle = (id: string) =>
    setLeft(left.includes(id) ? left.filter((one) => one !== id) : [...left, id])
  return (
    <>
      <Box title={`${strings.owing} ${owing.length}`}>
        {owing.length === 0 ? <Text variant="bodyMedium">{strings.allIn}</Text> : null}
        {owing.map((standing) => (
          <StandingLine
            key={standing.pupil.id}
            standing={standing}
            chosen={closed ? null : chosen.includes(standing.pupil.id)}
            onToggle={() => toggle(standing.pupil.id)}
          />
        ))}
        {nudge.isError ? <ProblemNotice error={nudge.error} /> : null}
        {owing.length > 0 && !closed ? (
          <BigButton
            label={strings.nudge(chosen.length)}
            symbol="nudge"
            disabled={chosen.length === 0}
            busy={nudge.isPending}
            onPress={() => nudge.mutate(chosen, { onSuccess: () => toast(strings.nudged) })}
          />
        ) : null}
      </Box>
      {rest.length > 0 ? (
        <Box title={`${strings.in} ${rest.length}`}>
          {rest.map((standing) => (
            <StandingLine
              key={standing.pupil.id}
              standing={standing}
              chosen={null}
              onToggle={() => undefined}
            />
          ))}
        </Box>
      ) : null}
    </>
  )
}

function StandingLine({
  standing,
  chosen,
  onToggle,
}: {
  standing: Standing
  chosen: boolean | null
  onToggle: () => void
}) {
  const { pupil } = standing
  const name = `${pupil.firstName} ${pupil.lastName}`.trim()
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        borderTopWidth: 1,
        borderTopColor: colours.rule,
        paddingTop: 8,
      }}
    >
      {chosen === null ? null : (
        <Press
          role="checkbox"
          label={name}
          selected={chosen}
          onPress={onToggle}
          style={{
            width: targets.adult,
            height: targets.adult,
            alignItems: 'center',
            justifyContent: 'center',
          }}
        >
          <Symbol name={chosen ? 'tick' : 'untick'} size={24} colour={colours.aubergine} />
        </Press>
      )}
      <Peg peg={pupil.peg} size={36} />
      <View style={{ flex: 1 }}>
        <Text variant="titleSmall">{name}</Text>
        <Hint>
          {[
            strings.counts[standing.standing],
            standing.nudgedAt ? strings.nudgedAt(whenWasIt(standing.nudgedAt)) : '',
          ]
            .filter(Boolean)
            .join(', ')}
        </Hint>
      </View>
      {standing.pieceId ? (
        <BigButton
          small
          tone="quiet"
          label={strings.open}
          onPress={() => router.push(`/tray/${standing.pieceId}`)}
        />
      ) : null}
    </View>
  )
}
