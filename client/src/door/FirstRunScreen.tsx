import { FirstRun } from '@nibquill/contract'
import { Redirect } from 'expo-router'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { FormLine } from '../kit/formLines'
import { Heading, Page } from '../kit/layout'
import { Name } from '../kit/Name'
import { colours } from '../kit/theme'
import { useFormOf } from '../kit/useFormOf'
import { useSession, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'
import { t } from './words'

const FIELDS = [
  { name: 'schoolName', label: t('schoolName') },
  { name: 'timeZone', label: t('timeZone') },
  { name: 'firstName', label: t('firstName') },
  { name: 'lastName', label: t('lastName') },
  { name: 'email', label: t('email') },
  { name: 'password', label: t('newPassword') },
] as const

/** An empty Nibquill: the school and its first teacher. */
export function FirstRunScreen() {
  const session = useSession()
  const signIn = useSignIn()
  const { control, send } = useFormOf(
    FirstRun,
    {
      schoolName: '',
      timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      firstName: '',
      lastName: '',
      email: '',
      password: '',
    },
    (body) => signIn.mutateAsync({ way: 'first-run', body }),
  )
  // Set up: by this form, or already before somebody came here.
  if (session.data && !session.data.firstRun) return <Redirect href="/" />
  return (
    <Page
      max={560}
      foot={
        <BigButton label={t('setUp')} symbol="forward" onPress={send} busy={signIn.isPending} />
      }
    >
      <Name />
      <Heading>{t('firstRunTitle')}</Heading>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
        {t('firstRunHelp')}
      </Text>
      {FIELDS.map(({ name, label }) => (
        <FormLine
          key={name}
          control={control}
          name={name}
          label={label}
          secureTextEntry={name === 'password'}
          autoComplete={name === 'password' ? 'new-password' : 'off'}
        />
      ))}
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
    </Page>
  )
}
