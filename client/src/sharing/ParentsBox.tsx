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
import { Notice, ProblemNotice } from '../kit/Notice'
import { SaveButton } from '../media/SaveButton'
import { toast } from '../kit/Toast'
import { colours } from '../kit/theme'
import {
  useAddParent,
  useChangeInvitation,
  usePupilSharing,
  usePutConsent,
  useRemoveParent,
} from './sharingQueries'
import { strings } from './strings'

/** Who outside the school sees this pupil's work, what they agreed to, and the way to end it. */
export function ParentsBox({ pupilId, firstName }: { pupilId: string; firstName: string }) {
  const sharing = usePupilSharing(pupilId)
  const [adding, setAdding] = useState(false)
  const [told, setTold] = useState<WayIn | null>(null)
  if (sharing.isPending) return null
  if (sharing.isError)
    return <ProblemNotice error={sharing.error} onRetry={() => void sharing.refetch()} />
  const { guardians, consents } = sharing.data
  const waiting = guardians.some(
    ({ invitation }) =>
      invitation?.state === 'asked' || (invitation?.state === 'open' && !invitation.lastUsedAt),
  )
  return (
    <>
      <Box title={strings.parents}>
        {guardians.length === 0 ? <Text variant="bodyMedium">{strings.noParents}</Text> : null}
        {guardians.map((guardian) => (
          <GuardianLine
            key={guardian.id}
            pupilId={pupilId}
            guardian={guardian}
            firstName={firstName}
            onTold={setTold}
          />
        ))}
        {told ? <ToldOnce wayIn={told} onDone={() => setTold(null)} /> : null}
        {adding ? (
          <AddParentForm pupilId={pupilId} onTold={setTold} onDone={() => setAdding(false)} />
        ) : (
          <Row>
            <BigButton
              small
              tone="quiet"
              symbol="plus"
              label={strings.addParent}
              onPress={() => setAdding(true)}
            />
            {waiting ? (
              <SaveButton
                label={strings.letter}
                symbol="print"
                address="/api/sharing/letters"
                order={{ pupilId }}
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

function ConsentBox({
  pupilId,
  consents,
}: {
  pupilId: string
  consents: PupilSharing['consents']
}) {
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
          <Hint>
            {granted === null || !saidAt
              ? strings.nobodySaid
              : strings.said(granted, saidBy ?? '', whenWasIt(saidAt))}
          </Hint>
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

/** Where one parent goes: told by the server this once. */
type WayIn = { name: string; address: string }

function ToldOnce({ wayIn, onDone }: { wayIn: WayIn; onDone: () => void }) {
  const copy = () =>
    void navigator.clipboard?.writeText(wayIn.address).then(() => toast(strings.copied))
  return (
    <Notice tone="news" symbol="link">
      <View style={{ gap: 8 }}>
        <Text variant="titleSmall">{strings.toldOnce(wayIn.name)}</Text>
        <Text variant="bodyMedium" selectable>
          {wayIn.address}
        </Text>
        <Row>
          <BigButton small symbol="copy" label={strings.copy} onPress={copy} />
          <BigButton small tone="quiet" symbol="check" label={strings.haveIt} onPress={onDone} />
        </Row>
      </View>
    </Notice>
  )
}

type Telling = { pupilId: string; onTold: (wayIn: WayIn | null) => void }

function AddParentForm({ pupilId, onTold, onDone }: Telling & { onDone: () => void }) {
  const add = useAddParent(pupilId)
  const [id] = useState(() => newId())
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(ParentForm),
    defaultValues: { firstName: '', lastName: '', email: '' },
  })
  const save = handleSubmit((input) =>
    add.mutate(
      { id, input },
      {
        onSuccess: ({ address }) => {
          toast(input.email ? strings.mailed(input.email) : strings.invitedByLetter)
          onTold(address ? { name: `${input.firstName} ${input.lastName}`.trim(), address } : null)
          onDone()
        },
      },
    ),
  )
  return (
    <View style={{ gap: 12 }}>
      <FormLine control={control} name="firstName" label={strings.parentFirst} autoFocus />
      <FormLine control={control} name="lastName" label={strings.parentLast} />
      <FormLine
        control={control}
        name="email"
        label={strings.email}
        inputMode="email"
        autoCapitalize="none"
      />
      <Hint>{strings.emailHelp}</Hint>
      {add.isError ? <ProblemNotice error={add.error} /> : null}
      <Row>
        <BigButton
          label={strings.invite}
          symbol="link"
          onPress={() => void save()}
          busy={add.isPending}
        />
        <BigButton tone="quiet" label={strings.leaveIt} onPress={onDone} />
      </Row>
    </View>
  )
}

function GuardianLine({
  pupilId,
  guardian,
  firstName,
  onTold,
}: Telling & { guardian: Guardian; firstName: string }) {
  const change = useChangeInvitation(pupilId)
  const remove = useRemoveParent(pupilId)
  const [asking, setAsking] = useState<'withdraw' | 'remove' | null>(null)
  const { invitation } = guardian
  const name = `${guardian.firstName} ${guardian.lastName}`.trim()
  const asked = invitation?.state === 'asked'
  const renew = () =>
    invitation &&
    change.mutate(
      { invitationId: invitation.id, change: 'renew' },
      {
        onSuccess: ({ address }) => {
          if (address) onTold({ name, address })
          else toast(strings.mailed(guardian.email ?? name))
        },
      },
    )
  const about = [
    invitation &&
      STATE_WORDS[invitation.state](fullDayOf(invitation.expiresAt ?? invitation.createdAt)),
    invitation?.lastUsedAt ? strings.used(whenWasIt(invitation.lastUsedAt)) : '',
    guardian.email,
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
      {asked ? null : (
        <BigButton
          small
          tone="quiet"
          symbol="link"
          label={invitation?.state === 'open' ? strings.newLink : strings.renew}
          busy={change.isPending}
          onPress={renew}
        />
      )}
      {invitation?.state === 'open' ? (
        <BigButton
          small
          tone="again"
          symbol="link-off"
          label={strings.withdraw}
          onPress={() => setAsking('withdraw')}
        />
      ) : (
        <BigButton
          small
          tone="again"
          symbol="close"
          label={asked ? strings.takeBack : strings.remove}
          onPress={() => (asked ? remove.mutate(guardian.id) : setAsking('remove'))}
        />
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

const STATE_WORDS = {
  asked: () => strings.asked,
  open: strings.open,
  withdrawn: () => strings.withdrawn,
  ended: () => strings.ended,
} as const
