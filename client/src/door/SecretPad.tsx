import type { Peg as PegLook } from '@nibquill/contract'
import { SECRET_LENGTH, SECRET_SYMBOLS, type SecretSymbol } from '@nibquill/core'
import { useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { ProblemError, sentenceOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { Bar, Heading, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import { tryAgainIn } from './SignInProblem'
import { t } from './words'

type Props = {
  peg: PegLook
  name: string
  busy: boolean
  error: Error | null
  onSecret: (secret: SecretSymbol[]) => void
  onLeave: () => void
}

/** Three pictures in order, after a tap on a peg. The third one opens the desk. */
export function SecretPad({ peg, name, busy, error, onSecret, onLeave }: Props) {
  const { tablet } = useWidth()
  const [tapped, setTapped] = useState<SecretSymbol[]>([])
  const waitSeconds = useWaiting(error)
  useEffect(() => {
    if (error) setTapped([])
  }, [error])
  const tap = (symbol: SecretSymbol) => {
    const next = [...tapped, symbol]
    setTapped(next)
    if (next.length === SECRET_LENGTH) onSecret(next)
  }
  const still = busy || waitSeconds > 0 || tapped.length === SECRET_LENGTH
  return (
    <ScrollView
      style={{ backgroundColor: colours.paper }}
      contentContainerStyle={{
        flexGrow: 1,
        padding: space.far,
        gap: space.clear,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <Stack role="main" gap="clear" style={{ width: '100%', maxWidth: 560 }}>
        <Bar gap="apart">
          <Peg peg={peg} size={72} />
          <View style={{ flex: 1 }}>
            <Heading level={1}>{t('secretTitle', { name })}</Heading>
          </View>
          <Listen text={t('secretHelp')} />
        </Bar>
        <Bar align="stretch" gap="apart" style={{ justifyContent: 'center' }}>
          {Array.from({ length: SECRET_LENGTH }, (_, i) => (
            <Place key={i} number={i + 1} full={tapped[i] !== undefined} />
          ))}
        </Bar>
        {error && tapped.length === 0 ? (
          <Notice tone="again" symbol="alert">
            {[sentenceOf(error), waitSeconds > 0 ? tryAgainIn(waitSeconds) : '']
              .filter(Boolean)
              .join(' ')}
          </Notice>
        ) : null}
        <Bar
          role="group"
          aria-label={t('secretHelp')}
          wrap
          align="stretch"
          gap="apart"
          style={{ justifyContent: 'center' }}
        >
          {SECRET_SYMBOLS.map((symbol) => (
            <PictureKey
              key={symbol}
              symbol={symbol}
              still={still}
              large={tablet}
              onTap={() => tap(symbol)}
            />
          ))}
        </Bar>
        <Bar align="stretch" gap="apart">
          <BigButton tone="quiet" symbol="back" label={t('notMe')} onPress={onLeave} grow />
          <BigButton
            tone="quiet"
            symbol="undo"
            label={t('secretClear')}
            onPress={() => setTapped([])}
            disabled={still || tapped.length === 0}
            grow
          />
        </Bar>
      </Stack>
    </ScrollView>
  )
}

function PictureKey({
  symbol,
  still,
  large,
  onTap,
}: {
  symbol: SecretSymbol
  still: boolean
  large: boolean
  onTap: () => void
}) {
  return (
    <Press
      label={t(`secretPictures.${symbol}`)}
      disabled={still}
      onPress={onTap}
      style={{
        width: large ? 116 : 94,
        height: large ? 100 : 84,
        borderRadius: corners.button,
        backgroundColor: colours.sheet,
        borderWidth: 2,
        borderColor: colours.rule,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <DrawnSymbol name={symbol} size={large ? 60 : 50} colour={colours.ink} />
    </Press>
  )
}

/** What was tapped is not shown to those who look on: only that something was. */
function Place({ number, full }: { number: number; full: boolean }) {
  return (
    <View
      role="img"
      aria-label={t('secretPlace', { number })}
      style={{
        width: 56,
        height: 56,
        borderRadius: corners.sheet,
        borderWidth: 3,
        borderStyle: full ? 'solid' : 'dashed',
        alignItems: 'center',
        justifyContent: 'center',
        borderColor: full ? colours.aubergine : colours.inkSoft,
        backgroundColor: full ? colours.aubergine : 'transparent',
      }}
    >
      <Text
        aria-hidden
        variant="titleLarge"
        style={{ color: full ? colours.sheet : colours.inkSoft }}
      >
        {number}
      </Text>
    </View>
  )
}

/** Seconds until the peg may be tried again, counting down. */
function useWaiting(error: Error | null): number {
  const seconds = error instanceof ProblemError ? Number(error.problem.retryAfterSeconds ?? 0) : 0
  const [left, setLeft] = useState(0)
  useEffect(() => {
    setLeft(seconds)
    if (seconds === 0) return
    const until = performance.now() + seconds * 1000
    const timer = setInterval(() => {
      const rest = Math.max(0, Math.ceil((until - performance.now()) / 1000))
      setLeft(rest)
      if (rest === 0) clearInterval(timer)
    }, 500)
    return () => clearInterval(timer)
  }, [error, seconds])
  return left
}
