import { ChoosePassword, PasswordLink } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { Text } from 'react-native-paper'
import { useAsk } from '../api/queries'
import { BigButton } from '../kit/BigButton'
import { FormLine } from '../kit/formLines'
import { useFormOf } from '../kit/useFormOf'
import { Heading, Page } from '../kit/layout'
import { Name } from '../kit/Name'
import { Loading, ProblemNotice } from '../kit/Notice'
import { colours } from '../kit/theme'
import { useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'
import { t } from './words'

/** Where the link for new staff leads: a password is chosen, and one is in. */
export function PasswordScreen() {
  const { token } = useLocalSearchParams<{ token: string }>()
  const link = useAsk(
    ['accounts', 'password-link', token],
    `/accounts/password-links/${token}`,
    PasswordLink,
  )
  const signIn = useSignIn()
  const { control, send } = useFormOf(ChoosePassword, { password: '' }, async (body) => {
    await signIn.mutateAsync({ way: 'password-link', token, body })
    router.replace('/')
  })
  if (link.isPending) return <Loading />
  if (link.isError) return <ProblemNotice error={link.error} />
  return (
    <Page
      max={520}
      foot={
        <BigButton
          label={t('choosePassword')}
          symbol="forward"
          onPress={send}
          busy={signIn.isPending}
        />
      }
    >
      <Name />
      <Heading>{t('welcome', { name: link.data.firstName })}</Heading>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
        {`${link.data.schoolName}, ${link.data.email}`}
      </Text>
      <FormLine
        control={control}
        name="password"
        label={t('newPassword')}
        onSubmitEditing={send}
        secureTextEntry
        autoComplete="new-password"
      />
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
    </Page>
  )
}
