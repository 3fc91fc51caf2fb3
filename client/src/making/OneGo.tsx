import type { Piece } from '@nibquill/contract'
import { isOpen } from '@nibquill/core'
import type { UseQueryResult } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Text } from 'react-native-paper'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, space } from '../kit/theme'
import { PieceTrouble } from '../pieces'
import { WhatTeacherSaid } from './WhatTeacherSaid'

/** What is made on it, while its piece is open; before, what its teacher said and what went wrong. */
export function OpenPiece({
  begun,
  pieceId,
  piece,
  query,
  closed,
  children,
}: {
  /** Whether there is such a piece already. */
  begun: boolean
  pieceId: string
  piece: Piece | null
  query: UseQueryResult<Piece>
  /** What is said of one that is not open. */
  closed: string
  children: ReactNode
}) {
  if (begun && !piece && query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  if (begun && !piece) return <Loading />
  if (piece && !isOpen(piece.state))
    return (
      <Notice tone="attention" symbol="alert">
        {closed}
      </Notice>
    )
  return (
    <>
      <Stack gap="near" style={{ paddingHorizontal: space.apart, paddingTop: space.near }}>
        {piece ? <WhatTeacherSaid piece={piece} /> : null}
        <PieceTrouble pieceId={pieceId} />
      </Stack>
      {children}
    </>
  )
}

/** What to do, said and spoken. */
export function Told({ words }: { words: string }) {
  return (
    <Bar gap="near" style={{ maxWidth: 480 }}>
      <Text variant="titleLarge" style={{ textAlign: 'center', flexShrink: 1 }}>
        {words}
      </Text>
      <Listen text={words} />
    </Bar>
  )
}

/** The one thing to tap. */
export function Round({
  label,
  symbol,
  stops = false,
  onPress,
}: {
  label: string
  symbol: SymbolName
  stops?: boolean
  onPress: () => void
}) {
  return (
    <Press
      label={label}
      onPress={onPress}
      style={{
        ...{ width: ROUND_PX, height: ROUND_PX, borderRadius: ROUND_PX / 2 },
        ...{ alignItems: 'center', justifyContent: 'center' },
        backgroundColor: stops ? colours.clay : colours.aubergine,
      }}
    >
      <DrawnSymbol name={symbol} size={64} colour={colours.sheet} />
      <Text variant="titleMedium" style={{ color: colours.sheet }}>
        {label}
      </Text>
    </Press>
  )
}
const ROUND_PX = 168
