import { AddStaff, type ChangeStaff, type SchoolClass, type StaffMember } from '@nibquill/contract'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useState } from 'react'
import { Controller, useForm } from 'react-hook-form'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Choices, Several, Toggle } from '../kit/choices'
import { Box, FormLine, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import {
  schoolStrings as strings,
  useAddStaff,
  useChangeStaff,
  useClasses,
  useStaff,
} from '../school'

const nameOf = (member: { firstName: string; lastName: string }): string =>
  `${member.firstName} ${member.lastName}`.trim()
const choicesOf = (classes: readonly SchoolClass[]) =>
  classes.map(({ id, name, running, yearName }) => ({
    value: id,
    label: running ? name : `${name}, ${yearName}`,
  }))

/** Who works here: accounts, classes, leading, leaving. */
export function StaffScreen() {
  const staff = useStaff()
  const classes = useClasses()
  const [adding, setAdding] = useState(false)
  if (!isHere(staff) || !isHere(classes)) return <NotYet of={[staff, classes]} />
  const alone = classes.data.filter(({ teachers }) => teachers.length === 0).map(({ name }) => name)
  return (
    <Page>
      <Head title={strings.staff} back="/year" />
      <Hint>{strings.staffHelp}</Hint>
      {alone.length > 0 ? (
        <Notice tone="attention" symbol="alert">
          {strings.alone(alone.join(', '))}
        </Notice>
      ) : null}
      {adding ? (
        <AddStaffForm classes={classes.data} onDone={() => setAdding(false)} />
      ) : (
        <Row>
          <BigButton small symbol="plus" label={strings.addStaff} onPress={() => setAdding(true)} />
        </Row>
      )}
      {staff.data.map((member) => (
        <Member key={member.id} member={member} classes={classes.data} />
      ))}
    </Page>
  )
}

function AddStaffForm({
  classes,
  onDone,
}: {
  classes: readonly SchoolClass[]
  onDone: () => void
}) {
  const add = useAddStaff()
  const [id] = useState(() => newId())
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(AddStaff),
    defaultValues: {
      firstName: '',
      lastName: '',
      email: '',
      role: 'teacher' as 'teacher' | 'office',
      classIds: [] as string[],
    },
  })
  const save = handleSubmit((input) =>
    add.mutate(
      { id, input },
      {
        onSuccess: () => {
          toast(strings.sent(input.email))
          onDone()
        },
      },
    ),
  )
  return (
    <Box title={strings.addStaff}>
      <FormLine control={control} name="firstName" label={strings.staffFirst} autoFocus />
      <FormLine control={control} name="lastName" label={strings.lastName} />
      <FormLine
        control={control}
        name="email"
        label={strings.email}
        inputMode="email"
        autoCapitalize="none"
      />
      <Controller
        control={control}
        name="role"
        render={({ field }) => (
          <Choices
            label={strings.role}
            value={field.value}
            onChange={field.onChange}
            options={(['teacher', 'office'] as const).map((role) => ({
              value: role,
              label: strings.roles[role],
            }))}
          />
        )}
      />
      <Controller
        control={control}
        name="classIds"
        render={({ field }) => (
          <Several
            label={strings.teaches}
            options={choicesOf(classes)}
            values={field.value}
            onChange={field.onChange}
          />
        )}
      />
      {add.isError ? <ProblemNotice error={add.error} /> : null}
      <BigButton
        label={strings.invite}
        symbol="mail"
        onPress={() => void save()}
        busy={add.isPending}
      />
    </Box>
  )
}

function Member({ member, classes }: { member: StaffMember; classes: readonly SchoolClass[] }) {
  const change = useChangeStaff()
  const [open, setOpen] = useState(false)
  const [asking, setAsking] = useState(false)
  const { id } = member
  const about = [
    strings.roles[member.role],
    member.classes.map(({ name }) => name).join(', '),
    member.left
      ? strings.gone
      : member.active
        ? strings.lastSeen(member.lastSeenAt ? whenWasIt(member.lastSeenAt) : strings.never)
        : strings.invited,
  ]
  return (
    <Box>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
        <View style={{ flex: 1, minWidth: 180 }}>
          <Text role="heading" aria-level={2} variant="titleMedium">
            {nameOf(member)}
          </Text>
          <Hint>{about.filter(Boolean).join(' · ')}</Hint>
          <Hint>{member.email}</Hint>
        </View>
        <BigButton
          small
          tone="quiet"
          symbol={open ? 'up' : 'edit'}
          label={strings.change}
          onPress={() => setOpen(!open)}
        />
      </View>
      {open ? (
        member.left ? (
          <Row>
            <BigButton
              small
              tone="quiet"
              label={strings.comeBack}
              onPress={() => change.mutate({ id, change: { left: false } })}
            />
          </Row>
        ) : (
          <MemberChanges
            member={member}
            classes={classes}
            change={(next) => change.mutate({ id, change: next })}
            onLeave={() => setAsking(true)}
          />
        )
      ) : null}
      {change.isError ? <ProblemNotice error={change.error} /> : null}
      <Ask
        visible={asking}
        title={strings.staffLeaveAsk(nameOf(member))}
        yes={strings.staffLeave}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          change.mutate({ id, change: { left: true } })
        }}
      >
        {strings.staffLeaveHelp}
      </Ask>
    </Box>
  )
}

/** What the lead changes of somebody who works here; each is done at once. */
function MemberChanges({
  member,
  classes,
  change,
  onLeave,
}: {
  member: StaffMember
  classes: readonly SchoolClass[]
  change: (next: ChangeStaff) => void
  onLeave: () => void
}) {
  const add = useAddStaff()
  const input = {
    firstName: member.firstName,
    lastName: member.lastName,
    email: member.email,
    role: member.role,
    classIds: member.classes.map((one) => one.id),
  }
  return (
    <>
      <Several
        label={strings.teaches}
        options={choicesOf(classes)}
        values={input.classIds}
        onChange={(classIds) => change({ classIds })}
      />
      {member.oneTimeCodes ? (
        <Row>
          <Hint>{strings.codesOn}</Hint>
          <BigButton
            small
            tone="quiet"
            label={strings.codesOff}
            onPress={() => change({ oneTimeCodes: false })}
          />
        </Row>
      ) : null}
      <Toggle label={strings.leads} value={member.leads} onChange={(leads) => change({ leads })} />
      <Row>
        {member.active ? null : (
          <BigButton
            small
            tone="quiet"
            symbol="mail"
            label={strings.resend}
            busy={add.isPending}
            onPress={() =>
              add.mutate(
                { id: member.id, input },
                { onSuccess: () => toast(strings.sent(member.email)) },
              )
            }
          />
        )}
        <BigButton small tone="again" symbol="out" label={strings.staffLeave} onPress={onLeave} />
      </Row>
      {add.isError ? <ProblemNotice error={add.error} /> : null}
    </>
  )
}
