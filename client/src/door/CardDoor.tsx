import { CARD_CODE_LENGTH, readCardCode, writeCardCode } from '@nibquill/core'
import { router } from 'expo-router'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Listen } from '../kit/Listen'
import { colours, corners, fonts } from '../kit/theme'
import { Scanner } from './Scanner'
import { useSignIn } from '../accounts'
import { SignInProblem } from './SignInProblem'
import { t } from './words'
import { Bar } from '../kit/layout'

/**
 * The code of a card that a tablet's own camera opened; taken out of the address at once, so that
 * it stays in no history.
 */
function codeFromAddress(): string {
  if (typeof window === 'undefined') return ''
  const code = readCardCode(decodeURIComponent(window.location.hash.slice(1)))
  if (!code) return ''
  window.history.replaceState(window.history.state, '', window.location.pathname)
  return writeCardCode(code)
}

/** Whether the camera may be opened without a question, so that it can be there at once. */
async function cameraAllowed(): Promise<boolean> {
  try {
    return (
      (await navigator.permissions.query({ name: 'camera' as PermissionName })).state === 'granted'
    )
  } catch {
    return false
  }
}

/** A card is held up, or its letters are typed. A door card leads to the pegs. */
export function CardDoor() {
  const [code, setCode] = useState(codeFromAddress)
  const [way, setWay] = useState<'ask' | 'scan' | 'type'>(code ? 'type' : 'ask')
  const signIn = useSignIn()
  useEffect(() => {
    void cameraAllowed().then(
      (allowed) => allowed && setWay((now) => (now === 'ask' ? 'scan' : now)),
    )
  }, [])
  const enter = (letters: string) =>
    signIn.mutate(
      { way: 'card', body: { code: letters } },
      { onSuccess: ({ person, door }) => router.replace(!person && door ? '/pegs' : '/') },
    )
  const typing = way === 'type'
  const turnTo = (next: typeof way) => {
    signIn.reset()
    setWay(next)
  }
  const problem = signIn.isError ? <SignInProblem error={signIn.error} /> : null
  return (
    <>
      <Bar>
        <Text role="heading" aria-level={2} variant="headlineSmall" style={{ flex: 1 }}>
          {typing ? t('pupilTitle') : t('scanTitle')}
        </Text>
        <Listen text={typing ? t('pupilHelp') : t('scanHelp')} />
      </Bar>
      {way === 'ask' ? (
        <>
          <DrawnCard letters="" />
          <BigButton label={t('scanStart')} symbol="camera" onPress={() => turnTo('scan')} />
          <BigButton
            tone="quiet"
            label={t('typeInstead')}
            symbol="edit"
            onPress={() => turnTo('type')}
          />
        </>
      ) : null}
      {way === 'scan' ? (
        <Scanner
          onCard={enter}
          busy={signIn.isPending}
          onType={() => turnTo('type')}
          onRest={() => turnTo('ask')}
        >
          {problem}
        </Scanner>
      ) : null}
      {typing ? (
        <>
          <TypedCode code={code} onCode={setCode} onEnter={enter} busy={signIn.isPending} />
          {problem}
          <BigButton
            tone="quiet"
            label={t('scanInstead')}
            symbol="camera"
            onPress={() => turnTo('scan')}
          />
        </>
      ) : null}
    </>
  )
}

const lettersOf = (text: string) =>
  text
    .replace(/[^a-z]/gi, '')
    .toUpperCase()
    .slice(0, CARD_CODE_LENGTH)

type TypedProps = {
  code: string
  onCode: (code: string) => void
  onEnter: (code: string) => void
  busy: boolean
}
function TypedCode({ code, onCode, onEnter, busy }: TypedProps) {
  const letters = lettersOf(code)
  const whole = letters.length === CARD_CODE_LENGTH
  const enter = () => whole && onEnter(readCardCode(code) ?? code)
  return (
    <>
      <DrawnCard letters={letters} />
      <Field
        label={t('cardLabel')}
        value={code}
        onChangeText={(text) => onCode(writeCardCode(lettersOf(text)))}
        onSubmitEditing={enter}
        autoCapitalize="characters"
        autoComplete="off"
        spellCheck={false}
        large
        autoFocus
      />
      <BigButton label={t('go')} symbol="forward" onPress={enter} busy={busy} disabled={!whole} />
    </>
  )
}

/** The foot of the card as it is printed: sixteen places that fill while typing. */
function DrawnCard({ letters }: { letters: string }) {
  return (
    <Bar
      aria-hidden
      align="stretch"
      between
      style={{ backgroundColor: colours.ochreTint, borderRadius: corners.sheet, padding: 10 }}
    >
      {[0, 4, 8, 12].map((start) => (
        <Bar key={start} align="stretch" gap="hair" style={{ flex: 1 }}>
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
                <Text style={{ fontFamily: fonts.strong, fontSize: 17, lineHeight: 28 }}>
                  {letter ?? ' '}
                </Text>
              </View>
            )
          })}
        </Bar>
      ))}
    </Bar>
  )
}
