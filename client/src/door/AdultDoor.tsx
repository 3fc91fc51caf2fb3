import { Email, PasswordSignIn } from '@nibquill/contract'
import * as v from 'valibot'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { useFormOf } from '../kit/useFormOf'
import { Notice } from '../kit/Notice'
import { useForgotten, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'
import { t } from './words'

/** Staff: e-mail, password and, where it was chosen, a one-time code. */
export function AdultDoor() {
  const [forgotten, setForgotten] = useState(false)
  return forgotten ? (
    <Forgotten onBack={() => setForgotten(false)} />
  ) : (
    <SignInForm onForgotten={() => setForgotten(true)} />
  )
}

/** The code is asked for only after the school has said that it needs one. */
const SignIn = v.object({
  email: PasswordSignIn.entries.email,
  password: PasswordSignIn.entries.password,
  oneTimeCode: v.pipe(v.string(), v.trim()),
})

function SignInForm({ onForgotten }: { onForgotten: () => void }) {
  const signIn = useSignIn()
  const start = { email: '', password: '', oneTimeCode: '' }
  const { control, watch, send } = useFormOf(SignIn, start, ({ oneTimeCode, ...body }) =>
    signIn.mutateAsync({ way: 'password', body: oneTimeCode ? { ...body, oneTimeCode } : body }),
  )
  const refused = codeOf(signIn.error)
  const asksCode =
    refused === 'accounts/code-needed' ||
    refused === 'accounts/code-wrong' ||
    watch('oneTimeCode') !== ''
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {t('adultTitle')}
      </Text>
      <FormLine
        control={control}
        name="email"
        label={t('email')}
        autoComplete="username"
        inputMode="email"
        autoCapitalize="none"
        autoFocus
        onSubmitEditing={send}
      />
      <FormLine
        control={control}
        name="password"
        label={t('password')}
        autoComplete="current-password"
        secureTextEntry
        onSubmitEditing={send}
      />
      {asksCode ? (
        <FormLine
          control={control}
          name="oneTimeCode"
          label={t('oneTimeCode')}
          autoComplete="one-time-code"
          autoFocus
          onSubmitEditing={send}
        />
      ) : null}
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
      <BigButton label={t('signIn')} symbol="forward" onPress={send} busy={signIn.isPending} />
      <BigButton small tone="quiet" label={t('forgotten')} onPress={onForgotten} />
    </>
  )
}

function Forgotten({ onBack }: { onBack: () => void }) {
  const ask = useForgotten()
  const { control, send } = useFormOf(v.object({ email: Email }), { email: '' }, ({ email }) =>
    ask.mutateAsync(email),
  )
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {t('forgottenTitle')}
      </Text>
      <Hint>{t('forgottenHelp')}</Hint>
      <FormLine
        control={control}
        name="email"
        label={t('email')}
        autoComplete="username"
        inputMode="email"
        autoCapitalize="none"
        autoFocus
        onSubmitEditing={send}
      />
      {ask.isSuccess ? (
        <Notice tone="good" symbol="mail">
          {t('forgottenSent')}
        </Notice>
      ) : null}
      {ask.isError ? <SignInProblem error={ask.error} /> : null}
      <BigButton
        label={t('forgottenSend')}
        symbol="mail"
        onPress={send}
        busy={ask.isPending}
        disabled={ask.isSuccess}
      />
      <BigButton small tone="quiet" label={t('backToSignIn')} onPress={onBack} />
    </>
  )
}
