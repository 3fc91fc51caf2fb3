import { useMails } from '../accounts'
import { AddParent, type Guardian, type PupilSharing } from '@nibquill/contract'
import { useState } from 'react'
import * as v from 'valibot'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { fullDayOf } from '../kit/dates'
import { useWhen } from '../kit/useWhen'
import { Choices } from '../kit/choices'
import { Box, Hint } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { Notice, ProblemNotice } from '../kit/Notice'
import { SaveButton } from '../media/SaveButton'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { colours, space } from '../kit/theme'
import {
  useAddParent,
  useChangeInvitation,
  usePupilSharing,
  usePutConsent,
  useRemoveParent,
} from './sharingQueries'
import { t } from './words'
import { Bar, Stack } from '../kit/layout'

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
      <Box title={t('parents')}>
        {guardians.length === 0 ? <Text variant="bodyMedium">{t('noParents')}</Text> : null}
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
          <Bar wrap>
            <BigButton
              small
              tone="quiet"
              symbol="plus"
              label={t('addParent')}
              onPress={() => setAdding(true)}
            />
            {waiting ? (
              <SaveButton
                label={t('letter')}
                symbol="print"
                address="/api/sharing/letters"
                order={{ pupilId }}
                name="letter.pdf"
              />
            ) : null}
          </Bar>
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
  const { whenWasIt } = useWhen()
  const put = usePutConsent(pupilId)
  return (
    <Box title={t('consents')}>
      <Hint>{t('consentHelp')}</Hint>
      {consents.map(({ kind, granted, saidBy, saidAt }) => (
        <Stack key={kind} gap="tight">
          <Choices
            label={t(`consentKinds.${kind}`)}
            value={granted}
            options={[
              { value: true, label: t('consentYes') },
              { value: false, label: t('consentNo') },
            ]}
            onChange={(answer) => answer !== null && put.mutate({ kind, granted: answer })}
          />
          <Hint tone={granted === null ? 'attention' : 'soft'}>
            {granted === null || !saidAt
              ? t('nobodySaid')
              : t('said', {
                  answer: granted ? 'yes' : 'no',
                  who: saidBy ?? '',
                  when: whenWasIt(saidAt),
                })}
          </Hint>
        </Stack>
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
    void navigator.clipboard?.writeText(wayIn.address).then(() => toast(t('copied')))
  return (
    <Notice tone="news" symbol="link">
      <Stack gap="near">
        <Text variant="titleSmall">{t('toldOnce', { name: wayIn.name })}</Text>
        <Text variant="bodyMedium" selectable>
          {wayIn.address}
        </Text>
        <Bar wrap>
          <BigButton small symbol="copy" label={t('copy')} onPress={copy} />
          <BigButton small tone="quiet" symbol="check" label={t('haveIt')} onPress={onDone} />
        </Bar>
      </Stack>
    </Notice>
  )
}

type Telling = { pupilId: string; onTold: (wayIn: WayIn | null) => void }

function AddParentForm({ pupilId, onTold, onDone }: Telling & { onDone: () => void }) {
  const mails = useMails()
  const add = useAddParent(pupilId)
  const [id] = useState(() => newId())
  const start = { firstName: '', lastName: '', email: '' }
  const { control, send, refused } = useFormOf(ParentForm, start, async (input) => {
    const { address } = await add.mutateAsync({ id, input })
    toast(input.email ? t('mailed', { email: input.email, mails }) : t('invitedByLetter'))
    onTold(address ? { name: `${input.firstName} ${input.lastName}`.trim(), address } : null)
    onDone()
  })
  return (
    <Stack>
      <FormLine control={control} name="firstName" label={t('parentFirst')} autoFocus />
      <FormLine control={control} name="lastName" label={t('parentLast')} />
      <FormLine
        control={control}
        name="email"
        label={t('email')}
        inputMode="email"
        autoCapitalize="none"
      />
      <Hint>{t('emailHelp', { mails })}</Hint>
      {refused ? <ProblemNotice error={refused} /> : null}
      <Bar wrap>
        <BigButton label={t('invite')} symbol="link" onPress={send} busy={add.isPending} />
        <BigButton tone="quiet" label={t('leaveIt')} onPress={onDone} />
      </Bar>
    </Stack>
  )
}

/** Their way in, when it was last used, their address. */
function aboutOf(
  { invitation, email }: Guardian,
  mails: 'yes' | 'no',
  whenWasIt: (moment: string) => string,
): string {
  const about = [
    invitation &&
      t(`states.${invitation.state}`, {
        mails,
        until: fullDayOf(invitation.expiresAt ?? invitation.createdAt),
      }),
    invitation?.lastUsedAt ? t('used', { when: whenWasIt(invitation.lastUsedAt) }) : '',
    email,
  ]
  return about.filter(Boolean).join(', ')
}

function NewLink({
  guardian,
  busy,
  onPress,
}: {
  guardian: Guardian
  busy: boolean
  onPress: () => void
}) {
  return (
    <BigButton
      small
      tone="quiet"
      symbol="link"
      label={guardian.invitation?.state === 'open' ? t('newLink') : t('renew')}
      busy={busy}
      onPress={onPress}
    />
  )
}

function GuardianLine({
  pupilId,
  guardian,
  firstName,
  onTold,
}: Telling & { guardian: Guardian; firstName: string }) {
  const { whenWasIt } = useWhen()
  const mails = useMails()
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
          else toast(t('mailed', { email: guardian.email ?? name, mails }))
        },
      },
    )
  return (
    <Bar
      role="article"
      aria-label={name}
      wrap
      gap="apart"
      style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: space.apart }}
    >
      <View style={{ flex: 1, minWidth: 180 }}>
        <Text variant="titleSmall">{name}</Text>
        <Hint>{aboutOf(guardian, mails, whenWasIt)}</Hint>
      </View>
      {asked ? null : (
        <NewLink guardian={guardian} busy={change.isPending} onPress={() => renew()} />
      )}
      {invitation?.state === 'open' ? (
        <BigButton
          small
          tone="again"
          symbol="link-off"
          label={t('withdraw')}
          onPress={() => setAsking('withdraw')}
        />
      ) : (
        <BigButton
          small
          tone="again"
          symbol="close"
          label={asked ? t('takeBack') : t('remove')}
          onPress={() => (asked ? remove.mutate(guardian.id) : setAsking('remove'))}
        />
      )}
      {change.isError ? <ProblemNotice error={change.error} /> : null}
      <Ask
        visible={asking !== null}
        title={asking === 'remove' ? t('removeAsk', { name, child: firstName }) : t('withdrawAsk')}
        yes={asking === 'remove' ? t('remove') : t('withdraw')}
        tone="again"
        onNo={() => setAsking(null)}
        onYes={() => {
          setAsking(null)
          if (asking === 'remove') remove.mutate(guardian.id)
          else if (invitation) change.mutate({ invitationId: invitation.id, change: 'withdraw' })
        }}
      >
        {asking === 'remove' ? t('removeHelp') : t('withdrawHelp')}
      </Ask>
    </Bar>
  )
}
