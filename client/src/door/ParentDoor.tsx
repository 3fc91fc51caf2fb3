import { Email, MailCodeSignIn } from '@nibquill/contract'
import * as v from 'valibot'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { Notice } from '../kit/Notice'
import { useFormOf } from '../kit/useFormOf'
import { useMailCode, useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'
import { t } from './words'

/** Parents who came by invitation once: a code sent to their e-mail opens any device. */
export function ParentDoor() {
  const ask = useMailCode()
  const [email, setEmail] = useState('')
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {t('parentTitle')}
      </Text>
      {ask.isSuccess ? (
        <CodeForm email={email} onOther={ask.reset} />
      ) : (
        <AddressForm
          start={email}
          ask={async (given) => {
            await ask.mutateAsync(given)
            setEmail(given)
          }}
        />
      )}
    </>
  )
}

function AddressForm({ start, ask }: { start: string; ask: (email: string) => Promise<void> }) {
  const { control, formState, send, refused } = useFormOf(
    v.object({ email: Email }),
    { email: start },
    ({ email }) => ask(email),
  )
  return (
    <>
      <Hint>{t('parentHelp')}</Hint>
      <FormLine
        control={control}
        name="email"
        label={t('email')}
        autoComplete="email"
        inputMode="email"
        autoCapitalize="none"
        autoFocus
        onSubmitEditing={send}
      />
      {refused ? <SignInProblem error={refused} /> : null}
      <BigButton
        label={t('parentSend')}
        symbol="mail"
        onPress={send}
        busy={formState.isSubmitting}
      />
    </>
  )
}

function CodeForm({ email, onOther }: { email: string; onOther: () => void }) {
  const signIn = useSignIn()
  const { control, send, refused } = useFormOf(MailCodeSignIn, { email, code: '' }, (body) =>
    signIn.mutateAsync({ way: 'mail-code', body }),
  )
  return (
    <>
      <Notice tone="good" symbol="mail">
        {t('parentSent')}
      </Notice>
      <FormLine
        control={control}
        name="code"
        label={t('parentCode')}
        inputMode="numeric"
        autoComplete="one-time-code"
        large
        autoFocus
        onSubmitEditing={send}
      />
      {refused ? <SignInProblem error={refused} /> : null}
      <BigButton label={t('parentEnter')} symbol="forward" onPress={send} busy={signIn.isPending} />
      <BigButton small tone="quiet" label={t('parentOther')} onPress={onOther} />
    </>
  )
}
