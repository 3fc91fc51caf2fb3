import type { MakeTask, Task } from '@nibquill/contract'
import {
  acceptOf,
  ASKABLE_PARTS,
  PIECE_STEPS,
  type MediaKind,
  type TaskMediaRole,
} from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { schoolNow } from '../kit/clock'
import { schoolDayAndTime, schoolToday } from '../kit/dates'
import { Field } from '../kit/Field'
import { Choices, Several, Toggle } from '../kit/choices'
import { Box, DayField, faultsOf, Hint, Row, Select, sentence } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { MaterialPicker } from '../media/MaterialPicker'
import { useFolders } from '../folders'
import { useClass, useClasses, useStrands } from '../school'
import { strings } from './strings'
import { useChangeTask, useDueAdvice, useMakeTask, useTask, useUnits } from './tasksQueries'

type Media = { mediaId: string; role: TaskMediaRole; name: string; kind: MediaKind }
type Draft = Omit<MakeTask, 'media'> & { media: Media[] }

/** A task set or changed. */
export function TaskEditScreen() {
  const { id, classId, unitId } = useLocalSearchParams<{
    id: string
    classId?: string
    unitId?: string
  }>()
  const fresh = id === 'new'
  const task = useTask(id, !fresh)
  const classes = useClasses()
  const folders = useFolders()
  if (classes.isPending || folders.isPending || (!fresh && task.isPending)) return <Loading />
  if (classes.isError)
    return <ProblemNotice error={classes.error} onRetry={() => void classes.refetch()} />
  if (folders.isError)
    return <ProblemNotice error={folders.error} onRetry={() => void folders.refetch()} />
  if (task.isError) return <ProblemNotice error={task.error} onRetry={() => void task.refetch()} />
  const home = classId ?? classes.data.find(({ mine }) => mine)?.id ?? ''
  const start: Draft = task.data
    ? draftOf(task.data)
    : {
        classId: home,
        folderId: '',
        unitId: unitId ?? null,
        strandId: null,
        title: '',
        instructions: '',
        media: [],
        steps: ['finished'],
        asks: [],
        opens: null,
        due: null,
        folderChangeable: true,
        pupilIds: null,
      }
  return <TaskForm key={task.data?.version} task={task.data ?? null} start={start} />
}

const draftOf = (task: Task): Draft => ({
  classId: task.classId,
  folderId: task.folder.id,
  unitId: task.unit?.id ?? null,
  strandId: task.strandId,
  title: task.title,
  instructions: task.instructions,
  media: task.media.map(({ mediaId, role, name, kind }) => ({ mediaId, role, name, kind })),
  steps: task.steps,
  asks: task.asks,
  opens: task.opensAt ? schoolDayAndTime(task.opensAt) : null,
  due: task.dueAt ? schoolDayAndTime(task.dueAt) : null,
  folderChangeable: task.folderChangeable,
  pupilIds: task.pupilIds,
})

function TaskForm({ task, start }: { task: Task | null; start: Draft }) {
  const make = useMakeTask()
  const change = useChangeTask()
  const folders = useFolders()
  const [draft, setDraft] = useState(start)
  const [freshId] = useState(() => newId())
  const id = task?.id ?? freshId
  const set = (part: Partial<Draft>) => setDraft((now) => ({ ...now, ...part }))
  const error = make.error ?? change.error
  const faults = faultsOf(error)
  const fitting = (folders.data ?? []).filter(
    ({ wholeSchool, classIds, owner }) =>
      !owner && (wholeSchool || classIds.includes(draft.classId)),
  )
  const folderId = fitting.some((folder) => folder.id === draft.folderId)
    ? draft.folderId
    : (fitting[0]?.id ?? '')
  const save = () => {
    const { classId, media, ...rest } = draft
    const input = {
      ...rest,
      folderId,
      media: media.map(({ mediaId, role }) => ({ mediaId, role })),
    }
    const after = {
      onSuccess: () => {
        toast(task ? strings.kept : strings.set)
        router.replace(`/tasks/${id}`)
      },
    }
    if (task) change.mutate({ id, change: { ...input, seenVersion: task.version } }, after)
    else make.mutate({ id, input: { classId, ...input } }, after)
  }
  return (
    <Page
      foot={
        <BigButton
          label={task ? strings.keepChange : strings.keep}
          symbol="check"
          disabled={draft.title.trim() === '' || folderId === ''}
          busy={make.isPending || change.isPending}
          onPress={save}
        />
      }
    >
      <Head title={task ? task.title : strings.newTask} back="/tasks" />
      {error ? <ProblemNotice error={error} /> : null}
      {codeOf(error) === 'task/stale' ? (
        <BigButton
          tone="quiet"
          label={strings.theirs}
          symbol="again"
          onPress={() => window.location.reload()}
        />
      ) : null}
      {fitting.length === 0 ? (
        <Notice tone="attention" symbol="folder">
          {strings.needsFolder}
        </Notice>
      ) : null}
      <WhatBox draft={draft} set={set} nameFault={sentence(faults.title?.[0])} />
      <WhereBox draft={{ ...draft, folderId }} set={set} fresh={!task} folders={fitting} />
      <WhenBox
        draft={draft}
        set={set}
        dueFault={sentence(faults.due?.[0] ?? faults['due.day']?.[0])}
      />
    </Page>
  )
}

type Part = { draft: Draft; set: (part: Partial<Draft>) => void }

function WhatBox({ draft, set, nameFault }: Part & { nameFault: string | undefined }) {
  return (
    <Box>
      <Field
        label={strings.name}
        value={draft.title}
        onChangeText={(title) => set({ title })}
        error={nameFault}
      />
      <Field
        label={strings.instructions}
        value={draft.instructions}
        onChangeText={(instructions) => set({ instructions })}
        lines={4}
      />
      <MaterialPicker
        media={draft.media}
        onChange={(media) => set({ media })}
        kinds={[
          { role: 'voice', label: strings.sayIt, voice: true },
          {
            role: 'material',
            label: strings.material,
            accept: `${acceptOf('picture')},${acceptOf('paper')}`,
          },
          { role: 'example', label: strings.example, accept: acceptOf('picture') },
        ]}
      />
      <Several
        label={strings.steps}
        options={PIECE_STEPS.map((step) => ({ value: step, label: strings.stepNames[step] }))}
        values={draft.steps}
        onChange={(steps) => set({ steps })}
      />
      <Asks draft={draft} set={set} />
    </Box>
  )
}

function Asks({ draft, set }: Part) {
  const countOf = (kind: (typeof ASKABLE_PARTS)[number]) =>
    draft.asks.find((ask) => ask.kind === kind)?.count ?? 0
  const change = (kind: (typeof ASKABLE_PARTS)[number], count: number) =>
    set({
      asks: ASKABLE_PARTS.map((one) => ({
        kind: one,
        count: one === kind ? count : countOf(one),
      })).filter((ask) => ask.count > 0),
    })
  return (
    <View role="group" aria-label={strings.asks} style={{ gap: 2 }}>
      <Text variant="labelMedium">{strings.asks}</Text>
      {ASKABLE_PARTS.map((kind) => (
        <View key={kind} style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
          <Text variant="bodyMedium" style={{ width: 110 }}>
            {strings.parts[kind]}
          </Text>
          <RoundButton
            label={strings.fewer(strings.parts[kind])}
            symbol="minus"
            size={targets.adult}
            disabled={countOf(kind) === 0}
            onPress={() => change(kind, countOf(kind) - 1)}
          />
          <Text variant="titleSmall" style={{ minWidth: 22, textAlign: 'center' }}>
            {countOf(kind)}
          </Text>
          <RoundButton
            label={strings.more(strings.parts[kind])}
            symbol="plus"
            size={targets.adult}
            disabled={countOf(kind) >= 30}
            onPress={() => change(kind, countOf(kind) + 1)}
          />
        </View>
      ))}
    </View>
  )
}

function WhereBox({
  draft,
  set,
  fresh,
  folders,
}: Part & { fresh: boolean; folders: readonly { id: string; name: string }[] }) {
  const classes = useClasses()
  const strands = useStrands()
  const units = useUnits()
  const own = (classes.data ?? []).filter(({ mine }) => mine)
  const fitting = (units.data ?? []).filter(({ classId }) => classId === draft.classId)
  return (
    <Box>
      {fresh && own.length > 1 ? (
        <Select
          label={strings.forClass}
          value={draft.classId}
          options={own.map(({ id, name, running, yearName }) => ({
            value: id,
            label: running ? name : `${name}, ${yearName}`,
          }))}
          onChange={(classId) => set({ classId, unitId: null, pupilIds: null })}
        />
      ) : null}
      <Select
        label={strings.inFolder}
        value={draft.folderId}
        options={folders.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(folderId) => set({ folderId })}
      />
      <Toggle
        label={strings.changeable}
        value={draft.folderChangeable}
        onChange={(folderChangeable) => set({ folderChangeable })}
      />
      <Row>
        <Select
          label={strings.unit}
          value={draft.unitId ?? ''}
          options={[
            { value: '', label: strings.noUnit.toLowerCase() },
            ...fitting.map(({ id, title }) => ({ value: id, label: title })),
          ]}
          onChange={(unitId) => set({ unitId: unitId || null })}
        />
        <Select
          label={strings.strand}
          value={draft.strandId ?? ''}
          options={[
            { value: '', label: strings.noStrand },
            ...(strands.data ?? []).map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(strandId) => set({ strandId: strandId || null })}
        />
      </Row>
    </Box>
  )
}

/** A week from today, or today, as a first guess. */
const dayFromNow = (days: number): string =>
  schoolToday(new Date(schoolNow().getTime() + days * 86_400_000))

function WhenBox({ draft, set, dueFault }: Part & { dueFault: string | undefined }) {
  const home = useClass(draft.classId)
  const { due, opens, pupilIds } = draft
  const advice = useDueAdvice(draft.classId, due?.day ?? '', due?.time ?? '')
  const pupils = home.data?.pupils ?? []
  return (
    <Box>
      <Choices
        label={strings.due}
        value={due !== null}
        options={[
          { value: false, label: strings.dueNever },
          { value: true, label: strings.dueAt },
        ]}
        onChange={(on) => set({ due: on ? { day: dayFromNow(7), time: '15:00' } : null })}
      />
      {due ? <Moment moment={due} onChange={(moment) => set({ due: moment })} /> : null}
      {dueFault ? <Hint tone="fault">{dueFault}</Hint> : null}
      {due && advice.data?.warning ? <Hint tone="attention">{advice.data.warning}</Hint> : null}
      <Choices
        label={strings.when}
        value={opens !== null}
        options={[
          { value: false, label: strings.now },
          { value: true, label: strings.later },
        ]}
        onChange={(on) => set({ opens: on ? { day: dayFromNow(1), time: '08:00' } : null })}
      />
      {opens ? <Moment moment={opens} onChange={(moment) => set({ opens: moment })} /> : null}
      <Choices
        label={strings.whom}
        value={pupilIds !== null}
        options={[
          { value: false, label: strings.all },
          { value: true, label: strings.some },
        ]}
        onChange={(on) => set({ pupilIds: on ? [] : null })}
      />
      {pupilIds ? (
        <Several
          label={strings.pupils}
          options={pupils.map((pupil) => ({
            value: pupil.id,
            label: `${pupil.firstName} ${pupil.lastName}`.trim(),
          }))}
          values={pupilIds}
          onChange={(ids) => set({ pupilIds: ids })}
        />
      ) : null}
    </Box>
  )
}

function Moment({
  moment,
  onChange,
}: {
  moment: { day: string; time: string }
  onChange: (moment: { day: string; time: string }) => void
}) {
  return (
    <Row>
      <DayField
        label={strings.day}
        value={moment.day}
        onChange={(day) => onChange({ ...moment, day })}
      />
      <DayField
        type="time"
        label={strings.time}
        value={moment.time}
        onChange={(time) => onChange({ ...moment, time })}
      />
    </Row>
  )
}
