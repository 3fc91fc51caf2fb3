import type { Standing, Task } from '@nibquill/contract'
import { owes } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { Attachments } from '../media/Attachments'
import { TaskBar } from './TasksScreen'

import { useMoveTask, useNudge, useStandings, useTask } from './tasksQueries'
import { t } from './words'

/**
 * One task for its teacher: what it says, who has not handed in, and a reminder for their desks.
 */
export function TaskScreen() {
  const { whenIsItDue, whenItOpens, isToCome } = useWhen()
  const { id } = useLocalSearchParams<{ id: string }>()
  const task = useTask(id)
  if (!isHere(task)) return <NotYet of={task} />
  const about = [
    task.data.className,
    task.data.unit?.title ?? '',
    task.data.folder.name,
    task.data.opensAt && isToCome(task.data.opensAt)
      ? t('opens', { when: whenItOpens(task.data.opensAt) })
      : '',
    task.data.dueAt ? whenIsItDue(task.data.dueAt) : t('noDue'),
    task.data.closed ? t('closed') : '',
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
          label={t('material')}
        />
        <Attachments
          items={task.data.media.filter(({ role }) => role === 'example')}
          label={t('example')}
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
          toast(t('duplicated'))
          router.push(`/tasks/edit/${made.id}`)
        },
      },
    )
  return (
    <>
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="edit"
          label={t('edit')}
          onPress={() => router.push(`/tasks/edit/${id}`)}
        />
        <BigButton
          small
          tone="quiet"
          symbol="quill"
          label={task.sheet ? t('changeSheet') : t('makeSheet')}
          onPress={() => router.push(`/tasks/sheet/${id}`)}
        />
        {task.sheet?.sorting ? (
          <BigButton
            small
            tone="quiet"
            symbol="sort"
            label={t('lying')}
            onPress={() => router.push(`/tasks/lying/${id}`)}
          />
        ) : null}
        <BigButton
          small
          tone="quiet"
          symbol="duplicate"
          label={t('duplicate')}
          busy={move.isPending}
          onPress={copy}
        />
        <BigButton
          small
          tone="quiet"
          symbol={task.closed ? 'take-out' : 'lock'}
          label={task.closed ? t('reopen') : t('close')}
          onPress={() => move.mutate({ id, move: task.closed ? 'open' : 'close' })}
        />
      </Bar>
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
      <Box title={`${t('owing')} ${owing.length}`}>
        {owing.length === 0 ? <Text variant="bodyMedium">{t('allIn')}</Text> : null}
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
            label={t('nudge', { n: chosen.length })}
            symbol="nudge"
            disabled={chosen.length === 0}
            busy={nudge.isPending}
            onPress={() => nudge.mutate(chosen, { onSuccess: () => toast(t('nudged')) })}
          />
        ) : null}
      </Box>
      {rest.length > 0 ? (
        <Box title={`${t('in')} ${rest.length}`}>
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
  const { whenWasIt } = useWhen()
  const { pupil } = standing
  const name = `${pupil.firstName} ${pupil.lastName}`.trim()
  return (
    <Bar
      gap="apart"
      style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: space.near }}
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
          <DrawnSymbol name={chosen ? 'tick' : 'untick'} size={24} colour={colours.aubergine} />
        </Press>
      )}
      <Peg peg={pupil.peg} size={36} />
      <View style={{ flex: 1 }}>
        <Text variant="titleSmall">{name}</Text>
        <Hint>
          {[
            t(`counts.${standing.standing}`),
            standing.nudgedAt ? t('nudgedAt', { when: whenWasIt(standing.nudgedAt) }) : '',
          ]
            .filter(Boolean)
            .join(', ')}
        </Hint>
      </View>
      {standing.pieceId ? (
        <BigButton
          small
          tone="quiet"
          label={t('open')}
          onPress={() => router.push(`/tray/${standing.pieceId}`)}
        />
      ) : null}
    </Bar>
  )
}
