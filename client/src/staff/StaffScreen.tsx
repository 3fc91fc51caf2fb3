import { useMails } from '../accounts'
import { AddStaff, type ChangeStaff, type SchoolClass, type StaffMember } from '@nibquill/contract'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Several, Toggle } from '../kit/choices'
import { Box, Hint } from '../kit/form'
import { FormChoices, FormLine, FormSeveral } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page, SidesInTurn } from '../kit/layout'
import { Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { useAddStaff, useChangeStaff, useClasses, useStaff, schoolWords } from '../school'
import { t } from './words'

const nameOf = (member: { firstName: string; lastName: string }): string =>
  `${member.firstName} ${member.lastName}`.trim()
const choicesOf = (classes: readonly SchoolClass[]) =>
  classes.map(({ id, name, running, yearName }) => ({
    value: id,
    label: running ? name : `${name}, ${yearName}`,
  }))

/** Who works here: accounts, classes, leading, leaving. */
export function StaffScreen() {
  const mails = useMails()
  const staff = useStaff()
  const classes = useClasses()
  const [adding, setAdding] = useState(false)
  if (!isHere(staff) || !isHere(classes)) return <NotYet of={[staff, classes]} />
  const alone = classes.data.filter(({ teachers }) => teachers.length === 0).map(({ name }) => name)
  return (
    <Page sides>
      <Head title={schoolWords('staff')} back="/year" />
      <Hint>{t('staffHelp', { mails })}</Hint>
      {alone.length > 0 ? (
        <Notice tone="attention" symbol="alert">
          {t('alone', { names: alone.join(', ') })}
        </Notice>
      ) : null}
      {adding ? (
        <AddStaffForm classes={classes.data} onDone={() => setAdding(false)} />
      ) : (
        <Bar wrap>
          <BigButton small symbol="plus" label={t('addStaff')} onPress={() => setAdding(true)} />
        </Bar>
      )}
      <SidesInTurn>
        {staff.data.map((member) => (
          <Member key={member.id} member={member} classes={classes.data} />
        ))}
      </SidesInTurn>
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
  const mails = useMails()
  const add = useAddStaff()
  const [id] = useState(() => newId())
  const start: AddStaff = { firstName: '', lastName: '', email: '', role: 'teacher', classIds: [] }
  const { control, send, refused } = useFormOf(AddStaff, start, async (input) => {
    await add.mutateAsync({ id, input })
    toast(t('sent', { email: input.email, mails }))
    onDone()
  })
  return (
    <Box title={t('addStaff')}>
      <FormLine control={control} name="firstName" label={t('staffFirst')} autoFocus />
      <FormLine control={control} name="lastName" label={schoolWords('lastName')} />
      <FormLine
        control={control}
        name="email"
        label={t('email')}
        inputMode="email"
        autoCapitalize="none"
      />
      <FormChoices
        control={control}
        name="role"
        label={t('role')}
        options={(['teacher', 'office'] as const).map((role) => ({
          value: role,
          label: t(`roles.${role}`),
        }))}
      />
      <FormSeveral
        control={control}
        name="classIds"
        label={t('teaches')}
        options={choicesOf(classes)}
      />
      {refused ? <ProblemNotice error={refused} /> : null}
      <BigButton label={t('invite')} symbol="mail" onPress={send} busy={add.isPending} />
    </Box>
  )
}

function Member({ member, classes }: { member: StaffMember; classes: readonly SchoolClass[] }) {
  const { whenWasIt } = useWhen()
  const change = useChangeStaff()
  const [open, setOpen] = useState(false)
  const [asking, setAsking] = useState(false)
  const { id } = member
  const about = [
    t(`roles.${member.role}`),
    member.classes.map(({ name }) => name).join(', '),
    member.left
      ? schoolWords('gone')
      : member.active
        ? schoolWords('lastSeen', {
            when: member.lastSeenAt ? whenWasIt(member.lastSeenAt) : schoolWords('never'),
          })
        : t('invited'),
  ]
  return (
    <Box>
      <Bar wrap>
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
          label={schoolWords('change')}
          onPress={() => setOpen(!open)}
        />
      </Bar>
      {open ? (
        member.left ? (
          <Bar wrap>
            <BigButton
              small
              tone="quiet"
              label={schoolWords('comeBack')}
              onPress={() => change.mutate({ id, change: { left: false } })}
            />
          </Bar>
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
        title={t('staffLeaveAsk', { name: nameOf(member) })}
        yes={t('staffLeave')}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          change.mutate({ id, change: { left: true } })
        }}
      >
        {t('staffLeaveHelp')}
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
  const mails = useMails()
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
        label={t('teaches')}
        options={choicesOf(classes)}
        values={input.classIds}
        onChange={(classIds) => change({ classIds })}
      />
      {member.oneTimeCodes ? (
        <Bar wrap>
          <Hint>{t('codesOn')}</Hint>
          <BigButton
            small
            tone="quiet"
            label={t('codesOff')}
            onPress={() => change({ oneTimeCodes: false })}
          />
        </Bar>
      ) : null}
      <Toggle label={t('leads')} value={member.leads} onChange={(leads) => change({ leads })} />
      <Bar wrap>
        {member.active ? null : (
          <BigButton
            small
            tone="quiet"
            symbol="mail"
            label={t('resend')}
            busy={add.isPending}
            onPress={() =>
              add.mutate(
                { id: member.id, input },
                { onSuccess: () => toast(t('sent', { email: member.email, mails })) },
              )
            }
          />
        )}
        <BigButton small tone="again" symbol="out" label={t('staffLeave')} onPress={onLeave} />
      </Bar>
      {add.isError ? <ProblemNotice error={add.error} /> : null}
    </>
  )
}
