import { PutUnit, ReuseUnit, type SchoolClass, type Task, type Unit } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState, type ReactNode } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Toggle } from '../kit/choices'
import { Box, Hint } from '../kit/form'
import { FormLine, FormSelect } from '../kit/formLines'
import { Bar, Heading, Page, Stack, Tile } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'
import { colours, stateColours } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useComeTogether } from '../kit/useComeTogether'
import { useFormOf } from '../kit/useFormOf'
import { useClasses } from '../school'

import { useAllTasks, useDissolveUnit, usePutUnit, useReuseUnit, useUnits } from './tasksQueries'
import { t } from './words'

/** A teacher's tasks by unit, each with how far its class is. */
export function TasksScreen() {
  const [closed, setClosed] = useState(false)
  const tasks = useAllTasks(closed)
  const units = useUnits()
  const [adding, setAdding] = useState<'unit' | 'reuse' | null>(null)
  const isAllHere = useComeTogether(units)
  if (!isHere(tasks)) return <NotYet of={tasks} />
  if (!isAllHere) return <Loading />
  const running = (units.data ?? []).filter((unit) => unit.running)
  const alone = tasks.data.filter(({ unit }) => unit === null)
  return (
    <Page max={980}>
      <Heading level={1}>{t('title')}</Heading>
      <Bar wrap>
        <BigButton
          small
          symbol="plus"
          label={t('newTask')}
          onPress={() => router.push('/tasks/edit/new')}
        />
        <BigButton
          small
          tone="quiet"
          symbol="unit"
          label={t('newUnit')}
          onPress={() => setAdding(adding === 'unit' ? null : 'unit')}
        />
        {(units.data ?? []).length > 0 ? (
          <BigButton
            small
            tone="quiet"
            symbol="duplicate"
            label={t('reuse')}
            onPress={() => setAdding(adding === 'reuse' ? null : 'reuse')}
          />
        ) : null}
        <Toggle label={t('showClosed')} value={closed} onChange={setClosed} />
      </Bar>
      {adding === 'unit' ? (
        <OwnClasses>{(own) => <NewUnit own={own} onDone={() => setAdding(null)} />}</OwnClasses>
      ) : null}
      {adding === 'reuse' ? (
        <OwnClasses>
          {(own) => <Reuse units={units.data ?? []} own={own} onDone={() => setAdding(null)} />}
        </OwnClasses>
      ) : null}
      {running.map((unit) => (
        <UnitBox
          key={unit.id}
          unit={unit}
          tasks={tasks.data.filter((task) => task.unit?.id === unit.id)}
        />
      ))}
      {running.length > 0 && alone.length > 0 ? <Heading>{t('noUnit')}</Heading> : null}
      {alone.map((task) => (
        <TaskCard key={task.id} task={task} />
      ))}
      {tasks.data.length === 0 && running.length === 0 ? (
        <Empty symbol="tasks" title={t('empty')}>
          {t('emptyHelp')}
        </Empty>
      ) : null}
    </Page>
  )
}

function UnitBox({ unit, tasks }: { unit: Unit; tasks: Task[] }) {
  const dissolve = useDissolveUnit()
  return (
    <Stack role="region" aria-label={unit.title}>
      <Heading count={tasks.length}>{unit.title}</Heading>
      {tasks.map((task) => (
        <TaskCard key={task.id} task={task} />
      ))}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="plus"
          label={t('newTask')}
          onPress={() => router.push(`/tasks/edit/new?unitId=${unit.id}&classId=${unit.classId}`)}
        />
        <BigButton
          small
          tone="quiet"
          symbol="link-off"
          label={t('dissolve')}
          busy={dissolve.isPending}
          onPress={() => dissolve.mutate(unit.id)}
        />
      </Bar>
    </Stack>
  )
}

/** The classes one teaches. A form begins with the first of them, so they must be known before. */
function OwnClasses({ children }: { children: (own: SchoolClass[]) => ReactNode }) {
  const classes = useClasses()
  if (!isHere(classes)) return <NotYet of={classes} />
  return children(classes.data.filter(({ mine }) => mine))
}

type FormProps = { own: SchoolClass[]; onDone: () => void }

function NewUnit({ own, onDone }: FormProps) {
  const put = usePutUnit()
  const [id] = useState(() => newId())
  const start = { classId: own[0]?.id ?? '', title: '' }
  const { control, watch, send, refused } = useFormOf(PutUnit, start, async (unit) => {
    await put.mutateAsync({ id, unit })
    onDone()
  })
  return (
    <Box title={t('newUnit')}>
      <FormLine control={control} name="title" label={t('unitTitle')} autoFocus />
      {own.length > 1 ? (
        <FormSelect
          control={control}
          name="classId"
          label={t('forClass')}
          options={own.map(({ id, name }) => ({ value: id, label: name }))}
        />
      ) : null}
      {refused ? <ProblemNotice error={refused} /> : null}
      <BigButton
        label={t('makeUnit')}
        symbol="check"
        disabled={!watch('title').trim() || !watch('classId')}
        busy={put.isPending}
        onPress={send}
      />
    </Box>
  )
}

function Reuse({ units, own, onDone }: FormProps & { units: Unit[] }) {
  const reuse = useReuseUnit()
  const [id] = useState(() => newId())
  const start = { unitId: units[0]?.id ?? '', classId: own[0]?.id ?? '' }
  const { control, send, refused } = useFormOf(ReuseUnit, start, async (chosen) => {
    await reuse.mutateAsync({ id, reuse: chosen })
    const title = units.find((unit) => unit.id === chosen.unitId)?.title ?? ''
    toast(t('reused', { title }))
    onDone()
  })
  return (
    <Box title={t('reuse')}>
      <Hint>{t('reuseHelp')}</Hint>
      <FormSelect
        control={control}
        name="unitId"
        label={t('reuseWhich')}
        options={units.map((unit) => ({
          value: unit.id,
          label: `${unit.title}, ${unit.className}, ${unit.yearName}`,
        }))}
      />
      <FormSelect
        control={control}
        name="classId"
        label={t('reuseFor')}
        options={own.map((one) => ({ value: one.id, label: `${one.name}, ${one.yearName}` }))}
      />
      {refused ? <ProblemNotice error={refused} /> : null}
      <BigButton label={t('reuseDo')} symbol="duplicate" busy={reuse.isPending} onPress={send} />
    </Box>
  )
}

function TaskCard({ task }: { task: Task }) {
  const { whenIsItDue, whenItOpens, isToCome } = useWhen()
  const about = [
    task.className,
    task.folder.name,
    task.closed
      ? t('closed')
      : task.opensAt && isToCome(task.opensAt)
        ? t('opens', { when: whenItOpens(task.opensAt) })
        : task.dueAt
          ? whenIsItDue(task.dueAt)
          : t('noDue'),
    task.pupilIds ? t('forSome', { n: task.pupilIds.length }) : '',
  ]
  return (
    <View role="article" aria-label={task.title}>
      <Press role="link" onPress={() => router.push(`/tasks/${task.id}`)}>
        <Tile>
          <Bar gap="clear">
            <FolderDrawing folder={task.folder} width={84} />
            <View style={{ flex: 1 }}>
              <Text role="heading" aria-level={2} variant="titleLarge">
                {task.title}
              </Text>
              <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
                {about.filter(Boolean).join(' · ')}
              </Text>
            </View>
          </Bar>
          {task.instructions ? (
            <Text variant="bodyMedium" numberOfLines={3}>
              {task.instructions}
            </Text>
          ) : null}
          <TaskBar task={task} />
        </Tile>
      </Press>
    </View>
  )
}

/** How many pupils stand where, as a bar and in words. */
export function TaskBar({ task }: { task: Task }) {
  const counts = task.counts ?? {
    pupils: 0,
    ticked: 0,
    draft: 0,
    submitted: 0,
    returned: 0,
    approved: 0,
  }
  const none =
    counts.pupils -
    counts.ticked -
    counts.draft -
    counts.submitted -
    counts.returned -
    counts.approved
  const bars = [
    { key: 'approved', count: counts.approved, colour: stateColours.approved.mark },
    { key: 'submitted', count: counts.submitted, colour: stateColours.submitted.mark },
    { key: 'ticked', count: counts.ticked, colour: colours.sea },
    { key: 'returned', count: counts.returned, colour: stateColours.returned.mark },
    { key: 'draft', count: counts.draft, colour: colours.inkSoft },
    { key: 'none', count: none, colour: colours.rule },
  ] as const
  return (
    <>
      <Bar
        aria-hidden
        align="stretch"
        gap="hair"
        style={{ height: 14, borderRadius: 7, overflow: 'hidden' }}
      >
        {bars
          .filter(({ count }) => count > 0)
          .map(({ key, count, colour }) => (
            <View key={key} style={{ flex: count, backgroundColor: colour }} />
          ))}
      </Bar>
      <Bar wrap align="stretch" gap="apart">
        {bars
          .filter(({ key, count }) => key !== 'ticked' || count > 0)
          .map(({ key, count, colour }) => (
            <Bar key={key} gap="close">
              <View style={{ width: 12, height: 12, borderRadius: 3, backgroundColor: colour }} />
              <Text variant="bodySmall">{`${count} ${t(`counts.${key}`)}`}</Text>
            </Bar>
          ))}
      </Bar>
    </>
  )
}
