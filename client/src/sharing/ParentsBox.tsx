import { AddParent, type Guardian, type PupilSharing } from '@nibquill/contract'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { fullDayOf, whenWasIt } from '../kit/dates'
import { Toggle } from '../kit/choices'
import { Box, FormLine, Hint, Row } from '../kit/form'
import { ProblemNotice } from '../kit/Notice'
import { SaveButton } from '../kit/SaveButton'
import { toast } from '../kit/Toast'
import { colours } from '../kit/theme'
import { useAddParent, useChangeInvitation, usePupilSharing, usePutConsent, useRemoveParent } from './sharingQueries'
import { strings } from './strings'

/** Who outside the school sees this pupil's work, what they agreed to, and the way to end it. */
export function ParentsBox({ pupilId, firstName }: { pupilId: string; firstName: string }) {
  const sharing = usePupilSharing(pupilId)
  const [adding, setAdding] = useState(false)
  if (sharing.isPending) return null
  if (sharing.isError) return <ProblemNotice error={sharing.error} onRetry={() => void sharing.refetch()} />
  const { guardians, consents } = sharing.data
  const waiting = guardians.some(({ invitation }) => invitation?.state === 'open' && !invitation.lastUsedAt)
  return (
    <>
      <Box title={strings.parents}>
        {guardians.length === 0 ? <Text variant="bodyMedium">{strings.noParents}</Text> : null}
        {guardians.map((guardian) => (
          <GuardianLine key={guardian.id} pupilId={pupilId} guardian={guardian} firstName={firstName} />
        ))}
        {adding ? (
          <AddParentForm pupilId={pupilId} onDone={() => setAdding(false)} />
        ) : (
          <Row>
            <BigButton small tone="quiet" symbol="plus" label={strings.addParent} onPress={() => setAdding(true)} />
            {waiting ? (
              <SaveButton
                label={strings.letter}
                symbol="print"
                address={`/api/sharing/letters?pupilId=${pupilId}`}
                name="letter.pdf"
              />
            ) : null}
          </Row>
        )}
      </Box>
      <ConsentBox pupilId={pupilId} consents={consents} />
    </>
  )
}

function ConsentBox({ pupilId, consents }: { pupilId: string; consents: PupilSharing['consents'] }) {
  const put = usePutConsent(pupilId)
  return (
    <Box title={strings.consents}>
      <Hint>{strings.consentHelp}</Hint>
      {consents.map(({ kind, granted, saidBy, saidAt }) => (
        <View key={kind} style={{ gap: 2 }}>
          <Toggle
            label={strings.consentKinds[kind]}
            value={granted ?? false}
            onChange={(yes) => put.mutate({ kind, granted: yes })}
          />
          <Hint>{granted === null || !saidAt ? strings.nobodySaid : strings.said(granted, saidBy ?? '', whenWasIt(saidAt))}</Hint>
        </View>
      ))}
      {put.isError ? <ProblemNotice error={put.error} /> : null}
    </Box>
  )
}

/** An empty line is no address. */
const ParentForm = v.object({
  ...AddParent.entries,
  email: v.union([
    v.pipe(
      v.literal(''),
      v.transform(() => null),
    ),
    AddParent.entries.email,
  ]),
})

function AddParentForm({ pupilId, onDone }: { pupilId: string; onDone: () => void }) {
  const add = useAddParent(pupilId)
  const [id] = useState(() => newId())
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(ParentForm),
    defaultValues: { firstName: '', lastName: '', email: '' },
  })
  const save = handleSubmit(
    (input) =>
    add.mutate({ id, input }, { onSuccess: () => { toast(input.email ? strings.mailed(input.email) : strings.invitedByLetter); onDone() } }), // prettier-ignore
  )
  return (
    <View style={{ gap: 12 }}>
      <FormLine control={control} name="firstName" label={strings.parentFirst} autoFocus />
      <FormLine control={control} name="lastName" label={strings.parentLast} />
      <FormLine control={control} name="email" label={strings.email} inputMode="email" autoCapitalize="none" />
      <Hint>{strings.emailHelp}</Hint>
      {add.isError ? <ProblemNotice error={add.error} /> : null}
      <Row>
        <BigButton label={strings.invite} symbol="link" onPress={() => void save()} busy={add.isPending} />
        <BigButton tone="quiet" label={strings.leaveIt} onPress={onDone} />
      </Row>
    </View>
  )
}

function GuardianLine({ pupilId, guardian, firstName }: { pupilId: string; guardian: Guardian; firstName: string }) {
  const change = useChangeInvitation(pupilId)
  const remove = useRemoveParent(pupilId)
  const [asking, setAsking] = useState<'withdraw' | 'remove' | null>(null)
  const { invitation } = guardian
  const name = `${guardian.firstName} ${guardian.lastName}`.trim()
  const state = invitation && { open: strings.open(fullDayOf(invitation.expiresAt)), withdrawn: strings.withdrawn, ended: strings.ended }[invitation.state] // prettier-ignore
  const copy = () => void navigator.clipboard?.writeText(invitation?.address ?? '').then(() => toast(strings.copied))
  const about = [
    state,
    invitation?.lastUsedAt ? strings.used(whenWasIt(invitation.lastUsedAt)) : '',
    guardian.email,
    guardian.otherChildren.length > 0 ? strings.alsoOf(guardian.otherChildren.join(', ')) : '',
  ]
  return (
    <View
      role="article"
      aria-label={name}
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 12,
        borderTopWidth: 1,
        borderTopColor: colours.rule,
        paddingTop: 12,
      }}
    >
      <View style={{ flex: 1, minWidth: 180 }}>
        <Text variant="titleSmall">{name}</Text>
        <Hint>{about.filter(Boolean).join(', ')}</Hint>
      </View>
      {invitation?.state === 'open' ? (
        <>
          <BigButton small tone="quiet" symbol="copy" label={strings.copy} onPress={copy} />
          <BigButton small tone="again" symbol="link-off" label={strings.withdraw} onPress={() => setAsking('withdraw')} />
        </>
      ) : (
        <>
          <BigButton
            small
            tone="quiet"
            symbol="link"
            label={strings.renew}
            busy={change.isPending}
            onPress={() => invitation && change.mutate({ invitationId: invitation.id, change: 'renew' })}
          />
          <BigButton small tone="again" symbol="close" label={strings.remove} onPress={() => setAsking('remove')} />
        </>
      )}
      {change.isError ? <ProblemNotice error={change.error} /> : null}
      <Ask
        visible={asking !== null}
        title={asking === 'remove' ? strings.removeAsk(name, firstName) : strings.withdrawAsk}
        yes={asking === 'remove' ? strings.remove : strings.withdraw}
        tone="again"
        onNo={() => setAsking(null)}
        onYes={() => {
          setAsking(null)
          if (asking === 'remove') remove.mutate(guardian.id)
          else if (invitation) change.mutate({ invitationId: invitation.id, change: 'withdraw' })
        }}
      >
        {asking === 'remove' ? strings.removeHelp : strings.withdrawHelp}
      </Ask>
    </View>
  )
}
