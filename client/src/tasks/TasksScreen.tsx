import type { Task, Unit } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { schoolNow } from '../kit/clock'
import { BigButton } from '../kit/BigButton'
import { whenIsItDue, whenItOpens } from '../kit/dates'
import { Field } from '../kit/Field'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Toggle } from '../kit/choices'
import { Box, Hint, Row, Select } from '../kit/form'
import { Heading, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'
import { colours, corners, shadow, stateColours } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useClasses } from '../school'
import { strings } from './strings'
import { useAllTasks, useDissolveUnit, usePutUnit, useReuseUnit, useUnits } from './tasksQueries'

/** A teacher's tasks by unit, each with how far its class is. */
export function TasksScreen() {
  const [closed, setClosed] = useState(false)
  const tasks = useAllTasks(closed)
  const units = useUnits()
  const [adding, setAdding] = useState<'unit' | 'reuse' | null>(null)
  if (!isHere(tasks)) return <NotYet of={tasks} />
  const running = (units.data ?? []).filter((unit) => unit.running)
  const alone = tasks.data.filter(({ unit }) => unit === null)
  return (
    <Page max={980}>
      <Heading level={1}>{strings.title}</Heading>
      <Row>
        <BigButton
          small
          symbol="plus"
          label={strings.newTask}
          onPress={() => router.push('/tasks/edit/new')}
        />
        <BigButton
          small
          tone="quiet"
          symbol="unit"
          label={strings.newUnit}
          onPress={() => setAdding(adding === 'unit' ? null : 'unit')}
        />
        {(units.data ?? []).length > 0 ? (
          <BigButton
            small
            tone="quiet"
            symbol="duplicate"
            label={strings.reuse}
            onPress={() => setAdding(adding === 'reuse' ? null : 'reuse')}
          />
        ) : null}
        <Toggle label={strings.showClosed} value={closed} onChange={setClosed} />
      </Row>
      {adding === 'unit' ? <NewUnit onDone={() => setAdding(null)} /> : null}
      {adding === 'reuse' ? (
        <Reuse units={units.data ?? []} onDone={() => setAdding(null)} />
      ) : null}
      {running.map((unit) => (
        <UnitBox
          key={unit.id}
          unit={unit}
          tasks={tasks.data.filter((task) => task.unit?.id === unit.id)}
        />
      ))}
      {running.length > 0 && alone.length > 0 ? <Heading>{strings.noUnit}</Heading> : null}
      {alone.map((task) => (
        <TaskCard key={task.id} task={task} />
      ))}
      {tasks.data.length === 0 && running.length === 0 ? (
        <Empty symbol="tasks" title={strings.empty}>
          {strings.emptyHelp}
        </Empty>
      ) : null}
    </Page>
  )
}

function UnitBox({ unit, tasks }: { unit: Unit; tasks: Task[] }) {
  const dissolve = useDissolveUnit()
  return (
    <View role="region" aria-label={unit.title} style={{ gap: 12 }}>
      <Heading count={tasks.length}>{unit.title}</Heading>
      {tasks.map((task) => (
        <TaskCard key={task.id} task={task} />
      ))}
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol="plus"
          label={strings.newTask}
          onPress={() => router.push(`/tasks/edit/new?unitId=${unit.id}&classId=${unit.classId}`)}
        />
        <BigButton
          small
          tone="quiet"
          symbol="link-off"
          label={strings.dissolve}
          busy={dissolve.isPending}
          onPress={() => dissolve.mutate(unit.id)}
        />
      </Row>
    </View>
  )
}

function NewUnit({ onDone }: { onDone: () => void }) {
  const classes = useClasses()
  const put = usePutUnit()
  const own = (classes.data ?? []).filter(({ mine }) => mine)
  const [title, setTitle] = useState('')
  const [chosen, setChosen] = useState('')
  const classId = chosen || own[0]?.id || ''
  return (
    <Box title={strings.newUnit}>
      <Field label={strings.unitTitle} value={title} onChangeText={setTitle} autoFocus />
      {own.length > 1 ? (
        <Select
          label={strings.forClass}
          value={classId}
          options={own.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setChosen}
        />
      ) : null}
      {put.isError ? <ProblemNotice error={put.error} /> : null}
      <BigButton
        label={strings.makeUnit}
        symbol="check"
        disabled={!title.trim() || !classId}
        busy={put.isPending}
        onPress={() => put.mutate({ id: newId(), unit: { classId, title } }, { onSuccess: onDone })}
      />
    </Box>
  )
}

function Reuse({ units, onDone }: { units: Unit[]; onDone: () => void }) {
  const classes = useClasses()
  const reuse = useReuseUnit()
  const own = (classes.data ?? []).filter(({ mine }) => mine)
  const [id] = useState(() => newId())
  const [unitId, setUnitId] = useState(units[0]?.id ?? '')
  const [chosen, setChosen] = useState('')
  const classId = chosen || own[0]?.id || ''
  const title = units.find((unit) => unit.id === unitId)?.title ?? ''
  return (
    <Box title={strings.reuse}>
      <Hint>{strings.reuseHelp}</Hint>
      <Select
        label={strings.reuseWhich}
        value={unitId}
        options={units.map((unit) => ({
          value: unit.id,
          label: `${unit.title}, ${unit.className}, ${unit.yearName}`,
        }))}
        onChange={setUnitId}
      />
      <Select
        label={strings.reuseFor}
        value={classId}
        options={own.map((one) => ({ value: one.id, label: `${one.name}, ${one.yearName}` }))}
        onChange={setChosen}
      />
      {reuse.isError ? <ProblemNotice error={reuse.error} /> : null}
      <BigButton
        label={strings.reuseDo}
        symbol="duplicate"
        busy={reuse.isPending}
        onPress={() =>
          reuse.mutate(
            { id, reuse: { unitId, classId } },
            {
              onSuccess: () => {
                toast(strings.reused(title))
                onDone()
              },
            },
          )
        }
      />
    </Box>
  )
}

function TaskCard({ task }: { task: Task }) {
  const about = [
    task.className,
    task.folder.name,
    task.closed
      ? strings.closed
      : task.opensAt && new Date(task.opensAt) > schoolNow()
        ? strings.opens(whenItOpens(task.opensAt))
        : task.dueAt
          ? whenIsItDue(task.dueAt)
          : strings.noDue,
    task.pupilIds ? strings.forSome(task.pupilIds.length) : '',
  ]
  return (
    <View role="article" aria-label={task.title}>
      <Press
        role="link"
        onPress={() => router.push(`/tasks/${task.id}`)}
        style={[
          { backgroundColor: colours.sheet, borderRadius: corners.button, padding: 18, gap: 12 },
          shadow,
        ]}
      >
        <View style={{ flexDirection: 'row', gap: 16, alignItems: 'center' }}>
          <FolderDrawing folder={task.folder} width={84} />
          <View style={{ flex: 1 }}>
            <Text role="heading" aria-level={2} variant="titleLarge">
              {task.title}
            </Text>
            <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
              {about.filter(Boolean).join(' · ')}
            </Text>
          </View>
        </View>
        {task.instructions ? (
          <Text variant="bodyMedium" numberOfLines={3}>
            {task.instructions}
          </Text>
        ) : null}
        <TaskBar task={task} />
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
      <View
        aria-hidden
        style={{ flexDirection: 'row', height: 14, borderRadius: 7, overflow: 'hidden', gap: 2 }}
      >
        {bars
          .filter(({ count }) => count > 0)
          .map(({ key, count, colour }) => (
            <View key={key} style={{ flex: count, backgroundColor: colour }} />
          ))}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }}>
        {bars
          .filter(({ key, count }) => key !== 'ticked' || count > 0)
          .map(({ key, count, colour }) => (
            <View key={key} style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
              <View style={{ width: 12, height: 12, borderRadius: 3, backgroundColor: colour }} />
              <Text variant="bodySmall">{`${count} ${strings.counts[key]}`}</Text>
            </View>
          ))}
      </View>
    </>
  )
}
