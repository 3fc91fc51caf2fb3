import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Heading, Page } from '../kit/layout'
import { Name } from '../kit/Name'
import { colours } from '../kit/theme'
import { accountsStrings as strings, useSession, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'

/**
 * Where an invitation leads. A tap is asked for, so that a mail program that looks links up does
 * not use it.
 */
export function InvitationScreen() {
  const { token } = useLocalSearchParams<{ token: string }>()
  const session = useSession()
  const signIn = useSignIn()
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
          label={strings.open}
          symbol="forward"
          onPress={open}
          busy={signIn.isPending}
          disabled={signIn.isError}
        />
      }
    >
      <View style={{ height: 40 }} />
      <Name />
      <Heading>{strings.invitationTitle}</Heading>
      <Text variant="bodyLarge">{session.data?.school?.name ?? ''}</Text>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
        {strings.invitationHelp}
      </Text>
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
    </Page>
  )
}
