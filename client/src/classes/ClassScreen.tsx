import { IDLE_MINUTES, type ClassDetail } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { CardsButton, DoorLine } from '../door'
import { useDoor, useSession } from '../accounts'
import { StaffNewsAtStart, noticesWords, useNews } from '../notices'
import { BigButton } from '../kit/BigButton'
import { dayOf } from '../kit/dates'
import { Field } from '../kit/Field'
import { Choices, Tabs, Toggle } from '../kit/choices'
import { Box, Hint } from '../kit/form'
import { Bar, Heading, Page, Stack } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { FirstSteps } from './FirstSteps'
import { useComeTogether } from '../kit/useComeTogether'
import { SaveButton } from '../media/SaveButton'
import { PupilTable } from './PupilTable'
import { useChangeClass, useClass, useClasses, schoolWords } from '../school'
import { t } from './words'
import { piecesWords } from '../pieces'

/** A class: each pupil with where their work stands, and everything a teacher sets up for it. */
export function ClassScreen() {
  const classes = useClasses()
  const session = useSession()
  const { classId } = useLocalSearchParams<{ classId?: string }>()
  const leads = session.data?.person?.leads ?? false
  const isAllHere = useComeTogether(useNews())
  if (!isHere(classes)) return <NotYet of={classes} />
  if (!isAllHere) return <Loading />
  const current = classes.data.find(({ id }) => id === classId) ?? classes.data[0]
  const newClass = (
    <BigButton
      small={Boolean(current)}
      tone={current ? 'quiet' : 'primary'}
      symbol="plus"
      label={t('newClass')}
      onPress={() => router.push('/class/new')}
    />
  )
  if (!current) {
    return (
      <Page>
        <FirstSteps />
        <Empty symbol="class" title={t('noClass')} action={leads ? newClass : undefined}>
          {leads ? t('noClassHelp') : t('noClassWait')}
        </Empty>
      </Page>
    )
  }
  return (
    <Page max={1080}>
      <Bar wrap>
        {classes.data.length > 1 ? (
          <Tabs
            label={t('classes')}
            value={current.id}
            options={classes.data.map((one) => ({
              value: one.id,
              label: one.running ? one.name : `${one.name}, ${one.yearName}`,
            }))}
            onChange={(id) => router.setParams({ classId: id })}
          />
        ) : null}
        {leads ? newClass : null}
      </Bar>
      <Stack gap="hair">
        <Heading level={1}>{[current.name, current.yearGroup].filter(Boolean).join(', ')}</Heading>
        {current.teachers.length > 0 ? (
          <Hint>
            {t('taughtBy', { names: current.teachers.map(({ name }) => name).join(', ') })}
          </Hint>
        ) : null}
      </Stack>
      <StaffNewsAtStart />
      <OneClass key={current.id} classId={current.id} mine={current.mine} />
    </Page>
  )
}

function OneClass({ classId, mine }: { classId: string; mine: boolean }) {
  const detail = useClass(classId)
  const door = useDoor(classId)
  const isAllHere = useComeTogether(door)
  if (!isHere(detail)) return <NotYet of={detail} />
  if (!isAllHere) return <Loading />
  const { pupils } = detail.data
  const add = (
    <BigButton
      small={pupils.length > 0}
      tone={pupils.length > 0 ? 'quiet' : 'primary'}
      symbol="plus"
      label={t('addPupils')}
      onPress={() => router.push(`/class/list?classId=${classId}`)}
    />
  )
  if (pupils.length === 0) {
    return (
      <>
        <Empty symbol="class" title={t('emptyClass')} action={add}>
          {t('emptyClassHelp')}
        </Empty>
        <Settings detail={detail.data} />
      </>
    )
  }
  return (
    <>
      <Bar wrap>
        {add}
        <BigButton
          small
          tone="quiet"
          symbol="anchor"
          label={t('pegs')}
          onPress={() => router.push(`/class/pegs?classId=${classId}`)}
        />
        {mine ? (
          <>
            <BigButton
              small
              tone="quiet"
              symbol="message"
              label={noticesWords('title')}
              onPress={() => router.push(`/notices?classId=${classId}`)}
            />
            <BigButton
              small
              tone="quiet"
              symbol="layers"
              label={piecesWords('forEveryone')}
              onPress={() => router.push(`/for-everyone?classId=${classId}`)}
            />
          </>
        ) : null}
        <CardsButton label={t('printCards')} order={{ classId }} />
      </Bar>
      {detail.data.notPrintable.length > 0 ? (
        <Hint tone="attention">
          {t('notPrintable', { names: detail.data.notPrintable.join(', ') })}
        </Hint>
      ) : null}
      {door.data ? <DoorLine classId={classId} door={door.data} /> : null}
      <PupilTable pupils={pupils} onOpen={(id) => router.push(`/class/${id}`)} />
      <Left left={detail.data.left} />
      <Settings detail={detail.data} />
    </>
  )
}

/** Who has left can be found, and brought back from their page. */
function Left({ left }: { left: ClassDetail['left'] }) {
  const [open, setOpen] = useState(false)
  if (left.length === 0) return null
  return (
    <Stack gap="near">
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol={open ? 'up' : 'down'}
          label={t('left', { count: left.length })}
          onPress={() => setOpen(!open)}
        />
      </Bar>
      {open ? (
        <Bar wrap>
          {left.map(({ id, name, leftAt }) => (
            <BigButton
              key={id}
              small
              tone="quiet"
              symbol="next"
              label={t('leftSince', { name, when: dayOf(leftAt.slice(0, 10)) })}
              onPress={() => router.push(`/class/${id}`)}
            />
          ))}
        </Bar>
      ) : null}
    </Stack>
  )
}

function Settings({ detail }: { detail: ClassDetail }) {
  const change = useChangeClass(detail.id)
  const [open, setOpen] = useState(false)
  const seenVersion = detail.version
  return (
    <>
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol={open ? 'up' : 'down'}
          label={t('settings')}
          onPress={() => setOpen(!open)}
        />
      </Bar>
      {open ? (
        <Box title={t('settings')}>
          <Naming
            key={seenVersion}
            detail={detail}
            busy={change.isPending}
            onKeep={(names) => change.mutate({ ...names, seenVersion })}
          />
          <Choices
            label={t('idle')}
            options={IDLE_MINUTES.map((minutes) => ({
              value: minutes,
              label: t('minutes', { minutes }),
            }))}
            value={detail.idleMinutes as (typeof IDLE_MINUTES)[number]}
            onChange={(idleMinutes) => change.mutate({ idleMinutes, seenVersion })}
          />
          <Toggle
            label={t('propose')}
            value={detail.pupilsPropose}
            onChange={(pupilsPropose) => change.mutate({ pupilsPropose, seenVersion })}
          />
          <Toggle
            label={t('young')}
            value={detail.young}
            onChange={(young) => change.mutate({ young, seenVersion })}
          />
          <Toggle
            label={t('sounds')}
            value={detail.sounds}
            onChange={(sounds) => change.mutate({ sounds, seenVersion })}
          />
          <Bar wrap>
            <SaveButton
              label={t('saveList')}
              address={`/api/school/export?format=csv&classId=${detail.id}`}
              name="class-list.csv"
            />
            <SaveButton
              label={t('letters')}
              symbol="print"
              address="/api/sharing/letters"
              order={{ classId: detail.id }}
              name="letters.pdf"
            />
          </Bar>
          {change.isError ? <ProblemNotice error={change.error} /> : null}
        </Box>
      ) : null}
    </>
  )
}

type Names = { name: string; yearGroup: string }
function Naming({
  detail,
  busy,
  onKeep,
}: {
  detail: ClassDetail
  busy: boolean
  onKeep: (names: Names) => void
}) {
  const [names, setNames] = useState<Names>({ name: detail.name, yearGroup: detail.yearGroup })
  const changed = names.name !== detail.name || names.yearGroup !== detail.yearGroup
  return (
    <>
      <Field
        label={t('className')}
        value={names.name}
        onChangeText={(name) => setNames({ ...names, name })}
      />
      <Field
        label={t('yearGroup')}
        value={names.yearGroup}
        onChangeText={(yearGroup) => setNames({ ...names, yearGroup })}
      />
      {changed ? (
        <Bar wrap>
          <BigButton
            small
            label={schoolWords('keep')}
            symbol="check"
            disabled={names.name.trim() === ''}
            busy={busy}
            onPress={() => onKeep(names)}
          />
        </Bar>
      ) : null}
    </>
  )
}
