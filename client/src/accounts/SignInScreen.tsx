import { PasswordSignIn } from '@nibquill/contract'
import { CARD_CODE_LENGTH, readCardCode, writeCardCode } from '@nibquill/core'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useState } from 'react'
import { Controller, useForm } from 'react-hook-form'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { ProblemError, sentenceOf } from '../api/problems'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Name } from '../kit/Name'
import { Listen, Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners, fonts, shadow, targets } from '../kit/theme'
import { useSession, useSignIn } from './session'
import { strings } from './strings'
import { takeIdle } from './useIdleSignOut'

/** The door: a pupil's card, or an adult's password. */
export function SignInScreen() {
  const [adult, setAdult] = useState(false)
  const [idle] = useState(takeIdle)
  const session = useSession()
  return (
    <ScrollView
      style={{ backgroundColor: colours.paper }}
      contentContainerStyle={{ flexGrow: 1, justifyContent: 'center', alignItems: 'center', padding: 20, gap: 22 }}
    >
      <View style={{ alignItems: 'center', gap: 4 }}>
        <Name size={44} />
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {session.data?.school?.name ?? ' '}
        </Text>
      </View>
      <View
        style={[
          { width: '100%', maxWidth: 480, backgroundColor: colours.sheet, borderRadius: corners.button, padding: 22, gap: 16 },
          shadow,
        ]}
      >
        {idle ? (
          <Notice tone="news" symbol="clock">
            {strings.idle}
          </Notice>
        ) : null}
        {adult ? <AdultForm /> : <CardForm />}
      </View>
      <Press
        role="link"
        onPress={() => setAdult(!adult)}
        label={adult ? strings.iAmPupil : strings.iAmAdult}
        style={{ minHeight: targets.pupil, flexDirection: 'row', gap: 10, alignItems: 'center', paddingHorizontal: 16 }}
      >
        <Symbol name={adult ? 'card' : 'class'} colour={colours.aubergine} />
        <Text variant="labelLarge" style={{ color: colours.aubergine }}>
          {adult ? strings.iAmPupil : strings.iAmAdult}
        </Text>
      </Press>
    </ScrollView>
  )
}

/** The code of a card that a tablet's own camera opened; taken out of the address at once, so that it stays in no history. */
function codeFromAddress(): string {
  if (typeof window === 'undefined') return ''
  const code = readCardCode(decodeURIComponent(window.location.hash.slice(1)))
  if (!code) return ''
  window.history.replaceState(window.history.state, '', window.location.pathname)
  return writeCardCode(code)
}

function CardForm() {
  const [code, setCode] = useState(codeFromAddress)
  const signIn = useSignIn()
  const letters = code
    .replace(/[^a-z]/gi, '')
    .toUpperCase()
    .slice(0, CARD_CODE_LENGTH)
  const whole = letters.length === CARD_CODE_LENGTH
  const enter = () => whole && signIn.mutate({ way: 'card', body: { code: readCardCode(code) ?? code } })
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Text role="heading" aria-level={2} variant="headlineSmall" style={{ flex: 1 }}>
          {strings.pupilTitle}
        </Text>
        <Listen text={strings.pupilHelp} />
      </View>
      <CardPicture letters={letters} />
      <Field
        label={strings.cardLabel}
        value={code}
        onChangeText={(text) =>
          setCode(
            writeCardCode(
              text
                .replace(/[^a-z]/gi, '')
                .toUpperCase()
                .slice(0, CARD_CODE_LENGTH),
            ),
          )
        }
        onSubmitEditing={enter}
        autoCapitalize="characters"
        autoComplete="off"
        spellCheck={false}
        large
        autoFocus
      />
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
      <BigButton label={strings.go} symbol="forward" onPress={enter} busy={signIn.isPending} disabled={!whole} />
    </>
  )
}

/** The card as it is printed: sixteen places that fill while typing. */
function CardPicture({ letters }: { letters: string }) {
  return (
    <View
      aria-hidden
      style={{
        flexDirection: 'row',
        justifyContent: 'space-between',
        backgroundColor: colours.ochreTint,
        borderRadius: corners.sheet,
        padding: 10,
        gap: 8,
      }}
    >
      {[0, 4, 8, 12].map((start) => (
        <View key={start} style={{ flexDirection: 'row', gap: 2, flex: 1 }}>
          {[0, 1, 2, 3].map((i) => {
            const letter = letters[start + i]
            return (
              <View
                key={i}
                style={{
                  flex: 1,
                  maxWidth: 24,
                  alignItems: 'center',
                  borderBottomWidth: 3,
                  borderBottomColor: letter ? colours.aubergine : colours.ochre,
                }}
              >
                <Text style={{ fontFamily: fonts.strong, fontSize: 17, lineHeight: 28 }}>{letter ?? ' '}</Text>
              </View>
            )
          })}
        </View>
      ))}
    </View>
  )
}

function AdultForm() {
  const signIn = useSignIn()
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(PasswordSignIn),
    defaultValues: { email: '', password: '' },
  })
  const enter = handleSubmit((body) => signIn.mutate({ way: 'password', body }))
  return (
    <>
      <Text role="heading" aria-level={2} variant="headlineSmall">
        {strings.adultTitle}
      </Text>
      <Controller
        control={control}
        name="email"
        render={({ field, fieldState }) => (
          <Field
            label={strings.email}
            value={field.value}
            onChangeText={field.onChange}
            onBlur={field.onBlur}
            error={fieldState.error && `It ${fieldState.error.message}.`}
            autoComplete="username"
            inputMode="email"
            autoCapitalize="none"
            autoFocus
            onSubmitEditing={() => void enter()}
          />
        )}
      />
      <Controller
        control={control}
        name="password"
        render={({ field, fieldState }) => (
          <Field
            label={strings.password}
            value={field.value}
            onChangeText={field.onChange}
            onBlur={field.onBlur}
            error={fieldState.error && `It ${fieldState.error.message}.`}
            autoComplete="current-password"
            secureTextEntry
            onSubmitEditing={() => void enter()}
          />
        )}
      />
      {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
      <BigButton label={strings.signIn} symbol="forward" onPress={() => void enter()} busy={signIn.isPending} />
    </>
  )
}

export function SignInProblem({ error }: { error: Error }) {
  const seconds = error instanceof ProblemError ? Number(error.problem.retryAfterSeconds ?? 0) : 0
  return (
    <Notice tone="again" symbol="alert">
      {sentenceOf(error) + (seconds ? ` ${strings.tooManyTries(Math.ceil(seconds / 60))}` : '')}
    </Notice>
  )
}
