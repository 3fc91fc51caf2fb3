import { IDLE_MINUTES, type ClassDetail } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { CardsButton, DoorLine } from '../door'
import { accountsStrings as accountWords, useSession } from '../accounts'
import { noticesStrings as noticeWords, StaffNewsBox } from '../notices'
import { piecesStrings as pieceWords } from '../pieces'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Choices, Tabs, Toggle } from '../kit/choices'
import { Box, Hint, Row } from '../kit/form'
import { Heading, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { FirstSteps } from './FirstSteps'
import { SaveButton } from '../media/SaveButton'
import { PupilTable } from './PupilTable'
import { schoolStrings as strings, useChangeClass, useClass, useClasses } from '../school'

/** A class: each pupil with where their work stands, and everything a teacher sets up for it. */
export function ClassScreen() {
  const classes = useClasses()
  const session = useSession()
  const { classId } = useLocalSearchParams<{ classId?: string }>()
  const leads = session.data?.person?.leads ?? false
  if (!isHere(classes)) return <NotYet of={classes} />
  const current = classes.data.find(({ id }) => id === classId) ?? classes.data[0]
  const newClass = (
    <BigButton
      small={Boolean(current)}
      tone={current ? 'quiet' : 'primary'}
      symbol="plus"
      label={strings.newClass}
      onPress={() => router.push('/class/new')}
    />
  )
  if (!current) {
    return (
      <Page>
        <FirstSteps />
        <Empty symbol="class" title={strings.noClass} action={leads ? newClass : undefined}>
          {leads ? strings.noClassHelp : strings.noClassWait}
        </Empty>
      </Page>
    )
  }
  return (
    <Page max={1080}>
      <Row>
        {classes.data.length > 1 ? (
          <Tabs
            label={strings.classes}
            value={current.id}
            options={classes.data.map((one) => ({
              value: one.id,
              label: one.running ? one.name : `${one.name}, ${one.yearName}`,
            }))}
            onChange={(id) => router.setParams({ classId: id })}
          />
        ) : null}
        {leads ? newClass : null}
      </Row>
      <View style={{ gap: 2 }}>
        <Heading level={1}>{[current.name, current.yearGroup].filter(Boolean).join(', ')}</Heading>
        {current.teachers.length > 0 ? (
          <Hint>{strings.taughtBy(current.teachers.map(({ name }) => name).join(', '))}</Hint>
        ) : null}
      </View>
      <StaffNewsBox />
      <OneClass key={current.id} classId={current.id} mine={current.mine} />
    </Page>
  )
}

function OneClass({ classId, mine }: { classId: string; mine: boolean }) {
  const detail = useClass(classId)
  if (!isHere(detail)) return <NotYet of={detail} />
  const { pupils } = detail.data
  const add = (
    <BigButton
      small={pupils.length > 0}
      tone={pupils.length > 0 ? 'quiet' : 'primary'}
      symbol="plus"
      label={strings.addPupils}
      onPress={() => router.push(`/class/list?classId=${classId}`)}
    />
  )
  if (pupils.length === 0) {
    return (
      <>
        <Empty symbol="class" title={strings.emptyClass} action={add}>
          {strings.emptyClassHelp}
        </Empty>
        <Settings detail={detail.data} />
      </>
    )
  }
  return (
    <>
      <Row>
        {add}
        <BigButton
          small
          tone="quiet"
          symbol="anchor"
          label={strings.pegs}
          onPress={() => router.push(`/class/pegs?classId=${classId}`)}
        />
        {mine ? (
          <>
            <BigButton
              small
              tone="quiet"
              symbol="message"
              label={noticeWords.title}
              onPress={() => router.push(`/notices?classId=${classId}`)}
            />
            <BigButton
              small
              tone="quiet"
              symbol="layers"
              label={pieceWords.forEveryone}
              onPress={() => router.push(`/for-everyone?classId=${classId}`)}
            />
          </>
        ) : null}
        <CardsButton label={accountWords.cards} order={{ classId }} />
      </Row>
      <DoorLine classId={classId} />
      <PupilTable pupils={pupils} onOpen={(id) => router.push(`/class/${id}`)} />
      <Settings detail={detail.data} />
    </>
  )
}

function Settings({ detail }: { detail: ClassDetail }) {
  const change = useChangeClass(detail.id)
  const [open, setOpen] = useState(false)
  const seenVersion = detail.version
  return (
    <>
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol={open ? 'up' : 'down'}
          label={strings.settings}
          onPress={() => setOpen(!open)}
        />
      </Row>
      {open ? (
        <Box title={strings.settings}>
          <Naming
            key={seenVersion}
            detail={detail}
            busy={change.isPending}
            onKeep={(names) => change.mutate({ ...names, seenVersion })}
          />
          <Choices
            label={strings.idle}
            options={IDLE_MINUTES.map((minutes) => ({
              value: minutes,
              label: strings.minutes(minutes),
            }))}
            value={detail.idleMinutes as (typeof IDLE_MINUTES)[number]}
            onChange={(idleMinutes) => change.mutate({ idleMinutes, seenVersion })}
          />
          <Toggle
            label={strings.propose}
            value={detail.pupilsPropose}
            onChange={(pupilsPropose) => change.mutate({ pupilsPropose, seenVersion })}
          />
          <Row>
            <SaveButton
              label={strings.saveList}
              address={`/api/school/export?format=csv&classId=${detail.id}`}
              name="class-list.csv"
            />
            <SaveButton
              label={strings.letters}
              symbol="print"
              address="/api/sharing/letters"
              order={{ classId: detail.id }}
              name="letters.pdf"
            />
          </Row>
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
        label={strings.className}
        value={names.name}
        onChangeText={(name) => setNames({ ...names, name })}
      />
      <Field
        label={strings.yearGroup}
        value={names.yearGroup}
        onChangeText={(yearGroup) => setNames({ ...names, yearGroup })}
      />
      {changed ? (
        <Row>
          <BigButton
            small
            label={strings.keep}
            symbol="check"
            disabled={names.name.trim() === ''}
            busy={busy}
            onPress={() => onKeep(names)}
          />
        </Row>
      ) : null}
    </>
  )
}
