import type { PupilSharing } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { fullDayOf, whenWasIt } from '../kit/dates'
import { Heading } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { Symbol } from '../kit/Symbol'
import { toast } from '../kit/Toast'
import { colours, corners, shadow } from '../kit/theme'
import { useChangeInvitation, usePupilSharing } from './sharingQueries'
import { strings } from './strings'

type Invitation = PupilSharing['invitations'][number]

/** Who outside the school sees this pupil's work, and the way to end it. */
export function ParentsBox({ pupilId }: { pupilId: string }) {
  const sharing = usePupilSharing(pupilId)
  if (sharing.isPending) return null
  if (sharing.isError) return <ProblemNotice error={sharing.error} onRetry={() => void sharing.refetch()} />
  const { consent, invitations } = sharing.data
  return (
    <View
      role="region"
      aria-label={strings.parents}
      style={[{ backgroundColor: colours.sheet, borderRadius: corners.button, padding: 18, gap: 12 }, shadow]}
    >
      <Heading>{strings.parents}</Heading>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <Symbol name={consent ? 'eye' : 'eyeoff'} colour={consent ? colours.verdigris : colours.clay} />
        <Text variant="bodyMedium" style={{ color: consent ? colours.verdigris : colours.clay }}>
          {consent ? strings.consent : strings.noConsent}
        </Text>
      </View>
      {invitations.length === 0 ? <Text variant="bodyMedium">{strings.noParents}</Text> : null}
      {invitations.map((invitation) => (
        <InvitationLine key={invitation.id} pupilId={pupilId} invitation={invitation} />
      ))}
    </View>
  )
}

function InvitationLine({ pupilId, invitation }: { pupilId: string; invitation: Invitation }) {
  const change = useChangeInvitation(pupilId)
  const [asking, setAsking] = useState(false)
  const state = { open: strings.open(fullDayOf(invitation.expiresAt)), withdrawn: strings.withdrawn, ended: strings.ended }[
    invitation.state
  ]
  const copy = () => void navigator.clipboard?.writeText(invitation.address ?? '').then(() => toast(strings.copied))
  return (
    <View
      role="article"
      aria-label={invitation.parentName}
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
        <Text variant="titleSmall">{invitation.parentName}</Text>
        <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
          {[state, invitation.lastUsedAt ? strings.used(whenWasIt(invitation.lastUsedAt)) : ''].filter(Boolean).join(', ')}
        </Text>
      </View>
      {invitation.state === 'open' ? (
        <>
          <BigButton small tone="quiet" symbol="copy" label={strings.copy} onPress={copy} />
          <BigButton small tone="again" symbol="link-off" label={strings.withdraw} onPress={() => setAsking(true)} />
        </>
      ) : (
        <BigButton
          small
          tone="quiet"
          symbol="link"
          label={strings.renew}
          onPress={() => change.mutate({ invitationId: invitation.id, change: 'renew' })}
          busy={change.isPending}
        />
      )}
      <Ask
        visible={asking}
        title={strings.withdrawAsk}
        yes={strings.withdraw}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          change.mutate({ invitationId: invitation.id, change: 'withdraw' })
        }}
      >
        {strings.withdrawHelp}
      </Ask>
    </View>
  )
}
