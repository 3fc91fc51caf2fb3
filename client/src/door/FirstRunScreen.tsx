import { FirstRun } from '@nibquill/contract'
import { Redirect } from 'expo-router'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { Controller, useForm } from 'react-hook-form'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Heading, Page } from '../kit/layout'
import { Name } from '../kit/Name'
import { colours } from '../kit/theme'
import { accountsStrings as strings, useSession, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'

const FIELDS = [
  { name: 'schoolName', label: strings.schoolName },
  { name: 'timeZone', label: strings.timeZone },
  { name: 'firstName', label: strings.firstName },
  { name: 'lastName', label: strings.lastName },
  { name: 'email', label: strings.email },
  { name: 'password', label: strings.newPassword },
] as const

/** An empty Nibquill: the school and its first teacher. */
export function FirstRunScreen() {
  const session = useSession()
  const signIn = useSignIn()
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(FirstRun),
    defaultValues: {
      schoolName: '',
      timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      firstName: '',
      lastName: '',
      email: '',
      password: '',
    },
  })
  const open = handleSubmit((body) => signIn.mutate({ way: 'first-run', body }))
  // Set up: by this form, or already before somebody came here.
  if (session.data && !session.data.firstRun) return <Redirect href="/" />
  return (
    <Page
      max={560}
      foot={
        <BigButton
          label={strings.setUp}
          symbol="forward"
          onPress={() => void open()}
          busy={signIn.isPending}
        />
      }
    >
      <Name />
      <Heading>{strings.firstRunTitle}</Heading>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
        {strings.firstRunHelp}
      </Text>
      {FIELDS.map(({ name, label }) => (
        <Controller
          key={name}
          control={control}
          name={name}
          render={({ field, fieldState }) => (
            <Field
              label={label}
              value={field.value}
              onChangeText={field.onChange}
              onBlur={field.onBlur}
              error={fieldState.error && `It ${fieldState.error.message}.`}
              secureTextEntry={name === 'password'}
              autoComplete={name === 'password' ? 'new-password' : 'off'}
            />
          )}
        />
      ))}
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
    </Page>
  )
}
