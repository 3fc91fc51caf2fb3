import { PasswordSignIn } from '@nibquill/contract'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { FormLine, Hint } from '../kit/form'
import { Notice } from '../kit/Notice'
import { accountsStrings as strings, useForgotten, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'

/** Staff: e-mail, password and, where it was chosen, a one-time code. */
export function AdultDoor() {
  const [forgotten, setForgotten] = useState(false)
  return forgotten ? (
    <Forgotten onBack={() => setForgotten(false)} />
  ) : (
    <SignInForm onForgotten={() => setForgotten(true)} />
  )
}

function SignInForm({ onForgotten }: { onForgotten: () => void }) {
  const signIn = useSignIn()
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(PasswordSignIn),
    defaultValues: { email: '', password: '' },
  })
  const [code, setCode] = useState('')
  const refused = codeOf(signIn.error)
  const asksCode =
    refused === 'accounts/code-needed' || refused === 'accounts/code-wrong' || code !== ''
  const enter = handleSubmit((body) =>
    signIn.mutate({ way: 'password', body: code.trim() ? { ...body, oneTimeCode: code } : body }),
  )
  const go = () => void enter()
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {strings.adultTitle}
      </Text>
      <FormLine
        control={control}
        name="email"
        label={strings.email}
        autoComplete="username"
        inputMode="email"
        autoCapitalize="none"
        autoFocus
        onSubmitEditing={go}
      />
      <FormLine
        control={control}
        name="password"
        label={strings.password}
        autoComplete="current-password"
        secureTextEntry
        onSubmitEditing={go}
      />
      {asksCode ? (
        <Field
          label={strings.oneTimeCode}
          value={code}
          onChangeText={setCode}
          autoComplete="one-time-code"
          autoFocus
          onSubmitEditing={go}
        />
      ) : null}
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
      <BigButton label={strings.signIn} symbol="forward" onPress={go} busy={signIn.isPending} />
      <BigButton small tone="quiet" label={strings.forgotten} onPress={onForgotten} />
    </>
  )
}

function Forgotten({ onBack }: { onBack: () => void }) {
  const [email, setEmail] = useState('')
  const ask = useForgotten()
  const send = () => email.trim() && ask.mutate(email)
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {strings.forgottenTitle}
      </Text>
      <Hint>{strings.forgottenHelp}</Hint>
      <Field
        label={strings.email}
        value={email}
        onChangeText={setEmail}
        autoComplete="username"
        inputMode="email"
        autoCapitalize="none"
        autoFocus
        onSubmitEditing={send}
      />
      {ask.isSuccess ? (
        <Notice tone="good" symbol="mail">
          {strings.forgottenSent}
        </Notice>
      ) : null}
      {ask.isError ? <SignInProblem error={ask.error} /> : null}
      <BigButton
        label={strings.forgottenSend}
        symbol="mail"
        onPress={send}
        busy={ask.isPending}
        disabled={ask.isSuccess}
      />
      <BigButton small tone="quiet" label={strings.backToSignIn} onPress={onBack} />
    </>
  )
}
