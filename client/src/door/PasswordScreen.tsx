import { ChoosePassword, PasswordLink } from '@nibquill/contract'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { router, useLocalSearchParams } from 'expo-router'
import { Controller, useForm } from 'react-hook-form'
import { Text } from 'react-native-paper'
import { useAsk } from '../api/queries'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { sentence } from '../kit/form'
import { Heading, Page } from '../kit/layout'
import { Name } from '../kit/Name'
import { Loading, ProblemNotice } from '../kit/Notice'
import { colours } from '../kit/theme'
import { accountsStrings as strings, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'

/** Where the link for new staff leads: a password is chosen, and one is in. */
export function PasswordScreen() {
  const { token } = useLocalSearchParams<{ token: string }>()
  const link = useAsk(
    ['accounts', 'password-link', token],
    `/accounts/password-links/${token}`,
    PasswordLink,
  )
  const signIn = useSignIn()
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(ChoosePassword),
    defaultValues: { password: '' },
  })
  const save = handleSubmit((body) =>
    signIn.mutate({ way: 'password-link', token, body }, { onSuccess: () => router.replace('/') }),
  )
  if (link.isPending) return <Loading />
  if (link.isError) return <ProblemNotice error={link.error} />
  return (
    <Page
      max={520}
      foot={
        <BigButton
          label={strings.choosePassword}
          symbol="forward"
          onPress={() => void save()}
          busy={signIn.isPending}
        />
      }
    >
      <Name />
      <Heading>{strings.welcome(link.data.firstName)}</Heading>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
        {`${link.data.schoolName}, ${link.data.email}`}
      </Text>
      <Controller
        control={control}
        name="password"
        render={({ field, fieldState }) => (
          <Field
            label={strings.newPassword}
            value={field.value}
            onChangeText={field.onChange}
            onBlur={field.onBlur}
            onSubmitEditing={() => void save()}
            error={sentence(fieldState.error?.message)}
            secureTextEntry
            autoComplete="new-password"
          />
        )}
      />
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
    </Page>
  )
}
