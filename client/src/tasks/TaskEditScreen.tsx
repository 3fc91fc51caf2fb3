import { MakeTask, type Folder, type Task } from '@nibquill/contract'
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
import * as v from 'valibot'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { schoolNow } from '../kit/clock'
import { schoolDayAndTime, schoolToday } from '../kit/dates'
import { Choices } from '../kit/choices'
import { Box, Hint, Select } from '../kit/form'
import { FormDay, FormLine, FormSelect, FormSeveral, FormToggle } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page, Sides, Stack } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { MaterialPicker } from '../media/MaterialPicker'
import { useFolders } from '../folders'
import { useClass, useClasses, useStrands } from '../school'

import { useChangeTask, useDueAdvice, useMakeTask, useTask, useUnits } from './tasksQueries'
import { t } from './words'

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
    ? draftOf(task.data, folders.data)
    : {
        classId: home,
        folderId: fittingFolder(folders.data, home, ''),
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
        asksThoughts: false,
        pupilIds: null,
      }
  return <TaskForm key={task.data?.version} task={task.data ?? null} start={start} />
}

const draftOf = (task: Task, folders: readonly Folder[]): Draft => ({
  classId: task.classId,
  folderId: fittingFolder(folders, task.classId, task.folder.id),
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
  asksThoughts: task.asksThoughts,
  pupilIds: task.pupilIds,
})

const TaskDraft = v.pipe(
  v.custom<Draft>(() => true),
  v.transform(({ media, ...rest }) => ({
    ...rest,
    media: media.map(({ mediaId, role }) => ({ mediaId, role })),
  })),
  MakeTask,
)
const useTaskForm = (start: Draft, sending: (task: MakeTask) => Promise<unknown>) =>
  useFormOf(TaskDraft, start, sending)
type Form = ReturnType<typeof useTaskForm>

function TaskForm({ task, start }: { task: Task | null; start: Draft }) {
  const make = useMakeTask()
  const change = useChangeTask()
  const [freshId] = useState(() => newId())
  const [more, setMore] = useState(() => saysMore(start))
  const id = task?.id ?? freshId
  const form = useTaskForm(start, async (filled) => {
    const { classId, ...rest } = filled
    if (task) await change.mutateAsync({ id, change: { ...rest, seenVersion: task.version } })
    else await make.mutateAsync({ id, input: { classId, ...rest } })
    toast(task ? t('kept') : t('set'))
    router.replace(`/tasks/${id}`)
  })
  const { refused, watch } = form
  const { title, classId, folderId } = watch()
  const fitting = fittingFolders(useFolders().data, classId)
  return (
    <Page
      sides
      foot={
        <BigButton
          label={task ? t('keepChange') : t('keep')}
          symbol="check"
          disabled={title.trim() === '' || folderId === ''}
          busy={make.isPending || change.isPending}
          onPress={form.send}
        />
      }
    >
      <Head title={task ? task.title : t('newTask')} back="/tasks" />
      {refused ? <ProblemNotice error={refused} /> : null}
      {codeOf(refused) === 'task/stale' ? (
        <BigButton
          tone="quiet"
          label={t('theirs')}
          symbol="again"
          onPress={() => window.location.reload()}
        />
      ) : null}
      {fitting.length === 0 ? (
        <Notice tone="attention" symbol="folder">
          {t('needsFolder')}
        </Notice>
      ) : null}
      <Sides
        left={<WhatBox form={form} />}
        right={
          <>
            <WhereBox form={form} fresh={!task} folders={fitting} />
            <DueBox form={form} />
            <BigButton
              small
              tone="quiet"
              symbol={more ? 'up' : 'down'}
              label={t('moreOfIt')}
              onPress={() => setMore(!more)}
            />
            {more ? <MoreBox form={form} /> : null}
          </>
        }
      />
    </Page>
  )
}

/** Folders a task of a class may go into. */
const fittingFolders = (folders: readonly Folder[] | undefined, classId: string): Folder[] =>
  (folders ?? []).filter(
    ({ wholeSchool, classIds, owner }) => !owner && (wholeSchool || classIds.includes(classId)),
  )

/** The folder, if it fits the class, or else the only one that does; `''`: it is to be chosen. */
function fittingFolder(folders: readonly Folder[], classId: string, folderId: string): string {
  const fitting = fittingFolders(folders, classId)
  if (fitting.some(({ id }) => id === folderId)) return folderId
  return fitting.length === 1 ? fitting[0]!.id : ''
}

/** Whether a task settles something that is folded away at first. */
const saysMore = ({ steps, asks, asksThoughts, strandId, opens, pupilIds, ...task }: Draft) =>
  steps.length > 1 ||
  asks.length > 0 ||
  asksThoughts ||
  strandId !== null ||
  opens !== null ||
  pupilIds !== null ||
  !task.folderChangeable

type Part = { form: Form }

function WhatBox({ form }: Part) {
  const { control, watch, set } = form
  return (
    <Box>
      <FormLine control={control} name="title" label={t('name')} />
      <FormLine control={control} name="instructions" label={t('instructions')} lines={4} />
      <MaterialPicker
        media={watch('media')}
        onChange={(media) => set({ media })}
        kinds={[
          { role: 'voice', label: t('sayIt'), voice: true },
          {
            role: 'material',
            label: t('material'),
            accept: (['picture', 'film', 'paper'] as const).map(acceptOf).join(','),
          },
          { role: 'example', label: t('example'), accept: acceptOf('picture') },
        ]}
      />
    </Box>
  )
}

function Asks({ form: { watch, set } }: Part) {
  const asks = watch('asks')
  const countOf = (kind: (typeof ASKABLE_PARTS)[number]) =>
    asks.find((ask) => ask.kind === kind)?.count ?? 0
  const change = (kind: (typeof ASKABLE_PARTS)[number], count: number) =>
    set({
      asks: ASKABLE_PARTS.map((one) => ({
        kind: one,
        count: one === kind ? count : countOf(one),
      })).filter((ask) => ask.count > 0),
    })
  return (
    <Stack role="group" aria-label={t('asks')} gap="hair">
      <Text variant="labelMedium">{t('asks')}</Text>
      {ASKABLE_PARTS.map((kind) => (
        <Bar key={kind} gap="close">
          <Text variant="bodyMedium" style={{ width: 110 }}>
            {t(`parts.${kind}`)}
          </Text>
          <RoundButton
            label={t('fewer', { what: t(`parts.${kind}`) })}
            symbol="minus"
            size={targets.adult}
            disabled={countOf(kind) === 0}
            onPress={() => change(kind, countOf(kind) - 1)}
          />
          <Text variant="titleSmall" style={{ minWidth: 22, textAlign: 'center' }}>
            {countOf(kind)}
          </Text>
          <RoundButton
            label={t('more', { what: t(`parts.${kind}`) })}
            symbol="plus"
            size={targets.adult}
            disabled={countOf(kind) >= 30}
            onPress={() => change(kind, countOf(kind) + 1)}
          />
        </Bar>
      ))}
    </Stack>
  )
}

function WhereBox({
  form: { control, watch, set },
  fresh,
  folders,
}: Part & { fresh: boolean; folders: readonly { id: string; name: string }[] }) {
  const all = useFolders()
  const classes = useClasses()
  const units = useUnits()
  const own = (classes.data ?? []).filter(({ mine }) => mine)
  const fitting = (units.data ?? []).filter(({ classId }) => classId === watch('classId'))
  return (
    <Box>
      {fresh && own.length > 1 ? (
        <Select
          label={t('forClass')}
          value={watch('classId')}
          options={own.map(({ id, name, running, yearName }) => ({
            value: id,
            label: running ? name : `${name}, ${yearName}`,
          }))}
          onChange={(classId) =>
            set({
              classId,
              folderId: fittingFolder(all.data ?? [], classId, watch('folderId')),
              unitId: null,
              pupilIds: null,
            })
          }
        />
      ) : null}
      <FormSelect
        control={control}
        name="folderId"
        label={t('inFolder')}
        options={[
          ...(folders.length > 1 ? [{ value: '', label: t('whichFolder') }] : []),
          ...folders.map(({ id, name }) => ({ value: id, label: name })),
        ]}
      />
      <Bar wrap>
        <FormSelect
          control={control}
          name="unitId"
          label={t('unit')}
          options={[
            { value: '', label: t('noUnit').toLowerCase() },
            ...fitting.map(({ id, title }) => ({ value: id, label: title })),
          ]}
        />
      </Bar>
    </Box>
  )
}

/** A week from today, or today, as a first guess. */
const dayFromNow = (days: number): string =>
  schoolToday(new Date(schoolNow().getTime() + days * 86_400_000))

function DueBox({ form: { control, watch, set, faultAt } }: Part) {
  const { classId, due } = watch()
  const advice = useDueAdvice(classId, due?.day ?? '', due?.time ?? '')
  const dueFault = faultAt('due')
  const warning = advice.data?.warning
  return (
    <Box>
      <Choices
        label={t('due')}
        value={due !== null}
        options={[
          { value: false, label: t('dueNever') },
          { value: true, label: t('dueAt') },
        ]}
        onChange={(on) => set({ due: on ? { day: dayFromNow(7), time: '15:00' } : null })}
      />
      {due ? <Moment control={control} name="due" /> : null}
      {dueFault ? <Hint tone="fault">{dueFault}</Hint> : null}
      {due && warning ? (
        <Hint tone="attention">{t(`dueMind.${warning.code}`, warning)}</Hint>
      ) : null}
    </Box>
  )
}

/** What most tasks do without, folded away until it is wanted. */
function MoreBox({ form }: Part) {
  const { control, watch, set } = form
  const strands = useStrands()
  const { classId, opens, pupilIds } = watch()
  const pupils = useClass(classId).data?.pupils ?? []
  return (
    <Box>
      <FormSeveral
        control={control}
        name="steps"
        label={t('steps')}
        options={PIECE_STEPS.map((step) => ({ value: step, label: t(`stepNames.${step}`) }))}
      />
      <Asks form={form} />
      <FormToggle control={control} name="asksThoughts" label={t('asksThoughts')} />
      <FormToggle control={control} name="folderChangeable" label={t('changeable')} />
      <FormSelect
        control={control}
        name="strandId"
        label={t('strand')}
        options={[
          { value: '', label: t('noStrand') },
          ...(strands.data ?? []).map(({ id, name }) => ({ value: id, label: name })),
        ]}
      />
      <Choices
        label={t('when')}
        value={opens !== null}
        options={[
          { value: false, label: t('now') },
          { value: true, label: t('later') },
        ]}
        onChange={(on) => set({ opens: on ? { day: dayFromNow(1), time: '08:00' } : null })}
      />
      {opens ? <Moment control={control} name="opens" /> : null}
      <Choices
        label={t('whom')}
        value={pupilIds !== null}
        options={[
          { value: false, label: t('all') },
          { value: true, label: t('some') },
        ]}
        onChange={(on) => set({ pupilIds: on ? [] : null })}
      />
      {pupilIds ? (
        <FormSeveral
          control={control}
          name="pupilIds"
          label={t('pupils')}
          options={pupils.map((pupil) => ({
            value: pupil.id,
            label: `${pupil.firstName} ${pupil.lastName}`.trim(),
          }))}
        />
      ) : null}
    </Box>
  )
}

function Moment({ control, name }: { control: Form['control']; name: 'due' | 'opens' }) {
  return (
    <Bar wrap>
      <FormDay control={control} name={`${name}.day`} label={t('day')} />
      <FormDay control={control} name={`${name}.time`} label={t('time')} type="time" />
    </Bar>
  )
}
