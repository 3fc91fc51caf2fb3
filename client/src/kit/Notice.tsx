import { useContext, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { sentenceOf } from './problems'
import { ForPupil } from './forPupil'
import { BigButton } from './BigButton'
import { Listen } from './Listen'
import { useReached } from '../device/network'

import { Spinner } from './Spinner'
import { DrawnSymbol, type SymbolName } from './DrawnSymbol'
import { colours, corners, space } from './theme'
import { t } from './words'
import { Bar, Stack } from './layout'

const TONES = {
  news: { back: colours.seaTint, mark: colours.sea },
  attention: { back: colours.ochreTint, mark: colours.ochreText },
  again: { back: colours.clayTint, mark: colours.clay },
  good: { back: colours.verdigrisTint, mark: colours.verdigris },
} as const

/**
 * One thing to know, in a band of its colour. Plain words can be heard where somebody may not read.
 */
export function Notice({
  tone,
  symbol,
  children,
  action,
}: {
  tone: keyof typeof TONES
  symbol: SymbolName
  children: ReactNode
  action?: ReactNode
}) {
  const look = TONES[tone]
  const forPupil = useContext(ForPupil) && typeof children === 'string'
  return (
    <Bar
      role={tone === 'again' ? 'alert' : undefined}
      gap="apart"
      style={{ backgroundColor: look.back, borderRadius: corners.button, padding: space.apart }}
    >
      <DrawnSymbol name={symbol} size={26} colour={look.mark} />
      <View style={{ flex: 1 }}>
        {typeof children === 'string' ? <Text variant="bodyMedium">{children}</Text> : children}
      </View>
      {action ?? (forPupil ? <Listen text={children} colour={look.mark} /> : null)}
    </Bar>
  )
}

/** What went wrong, what is safe, and what to do. */
export function ProblemNotice({ error, onRetry }: { error: unknown; onRetry?: () => void }) {
  return (
    <Stack style={{ padding: space.clear, maxWidth: 560, alignSelf: 'center', width: '100%' }}>
      <Notice tone="again" symbol="alert">
        {sentenceOf(error)}
      </Notice>
      {onRetry ? (
        <BigButton label={t('tryAgain')} symbol="again" tone="quiet" onPress={onRetry} />
      ) : null}
    </Stack>
  )
}

/**
 * The shape of what comes: pale sheets, and words for those who listen. Without a network it says
 * what it waits for.
 */
export function Loading() {
  const reached = useReached()
  return (
    <Stack role="status" aria-label={t('loading')} gap="clear" style={{ flex: 1, padding: 24 }}>
      <View
        style={{
          height: 30,
          width: '45%',
          borderRadius: corners.sheet,
          backgroundColor: colours.desk,
        }}
      />
      {[0, 1, 2].map((row) => (
        <View
          key={row}
          style={{
            height: 88,
            borderRadius: corners.button,
            backgroundColor: colours.desk,
            opacity: 0.9 - row * 0.25,
          }}
        />
      ))}
      {reached ? (
        <Spinner colour={colours.aubergine} />
      ) : (
        <Notice tone="attention" symbol="no-network">
          {t('waitsForNetwork')}
        </Notice>
      )}
    </Stack>
  )
}

/** Says what will be here and offers the first step. */
export function Empty({
  symbol,
  title,
  children,
  action,
}: {
  symbol: SymbolName
  title: string
  children?: string
  action?: ReactNode
}) {
  const forPupil = useContext(ForPupil)
  return (
    <Stack style={{ alignItems: 'center', padding: 28 }}>
      <DrawnSymbol name={symbol} size={56} colour={colours.inkSoft} />
      <Text variant="headlineSmall" style={{ textAlign: 'center' }}>
        {title}
      </Text>
      {children ? (
        <Text
          variant="bodyLarge"
          style={{ textAlign: 'center', color: colours.inkSoft, maxWidth: 420 }}
        >
          {children}
        </Text>
      ) : null}
      {forPupil ? <Listen text={[title, children].filter(Boolean).join('. ')} /> : null}
      {action}
    </Stack>
  )
}
