import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Heading, Page } from '../kit/layout'
import { Name } from '../kit/Name'
import { codeOf } from '../kit/problems'
import { colours } from '../kit/theme'
import { useInvitation, useSession, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'
import { t } from './words'

/**
 * Where an invitation leads. A tap is asked for, so that a mail program that looks links up does
 * not use it.
 */
export function InvitationScreen() {
  const { token } = useLocalSearchParams<{ token: string }>()
  const session = useSession()
  const signIn = useSignIn()
  const look = useInvitation(token)
  const names = look.data?.childNames ?? []
  const error = signIn.error ?? look.error
  const over = codeOf(error) === 'accounts/invitation-over'
  const open = () =>
    signIn.mutate(
      { way: 'invitation', body: { token } },
      { onSuccess: () => router.replace('/family') },
    )
  return (
    <Page
      max={520}
      foot={
        <BigButton
          label={t('open')}
          symbol="forward"
          onPress={open}
          busy={signIn.isPending}
          disabled={look.isPending || over}
        />
      }
    >
      <View style={{ height: 40 }} />
      <Name />
      <Heading>
        {over
          ? t('invitationOver')
          : names.length > 0
            ? t('invitationTo', { names: names.join(', ') })
            : t('invitationTitle')}
      </Heading>
      <Text variant="bodyLarge">{session.data?.school?.name ?? ''}</Text>
      {over ? null : (
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {t('invitationHelp')}
        </Text>
      )}
      {error ? <SignInProblem error={error} /> : null}
    </Page>
  )
}
