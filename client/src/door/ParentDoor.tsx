import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Hint } from '../kit/form'
import { Notice } from '../kit/Notice'
import { accountsStrings as strings, useMailCode, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'

/** Parents who came by invitation once: a code sent to their e-mail opens any device. */
export function ParentDoor() {
  const [email, setEmail] = useState('')
  const [code, setCode] = useState('')
  const ask = useMailCode()
  const signIn = useSignIn()
  const send = () => email.trim() && ask.mutate(email)
  const enter = () => code.trim() && signIn.mutate({ way: 'mail-code', body: { email, code } })
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {strings.parentTitle}
      </Text>
      {ask.isSuccess ? (
        <>
          <Notice tone="good" symbol="mail">
            {strings.parentSent}
          </Notice>
          <Field
            label={strings.parentCode}
            value={code}
            onChangeText={setCode}
            inputMode="numeric"
            autoComplete="one-time-code"
            large
            autoFocus
            onSubmitEditing={enter}
          />
          {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
          <BigButton
            label={strings.parentEnter}
            symbol="forward"
            onPress={enter}
            busy={signIn.isPending}
          />
          <BigButton
            small
            tone="quiet"
            label={strings.parentOther}
            onPress={() => {
              ask.reset()
              signIn.reset()
              setCode('')
            }}
          />
        </>
      ) : (
        <>
          <Hint>{strings.parentHelp}</Hint>
          <Field
            label={strings.email}
            value={email}
            onChangeText={setEmail}
            autoComplete="email"
            inputMode="email"
            autoCapitalize="none"
            autoFocus
            onSubmitEditing={send}
          />
          {ask.isError ? <SignInProblem error={ask.error} /> : null}
          <BigButton label={strings.parentSend} symbol="mail" onPress={send} busy={ask.isPending} />
        </>
      )}
    </>
  )
}
