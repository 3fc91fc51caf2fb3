import type { Piece } from '@nibquill/contract'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { piecesWords } from '../pieces'

/** What the teacher asked for with another go, while it is worked on. */
export function WhatTeacherSaid({ piece }: { piece: Piece }) {
  const asked = piece.versions.find(({ decision }) => decision)?.decision
  if (piece.state !== 'returned' || !asked?.message) return null
  return (
    <Notice tone="again" symbol="message" action={<Listen text={asked.message} />}>
      <View>
        <Text variant="labelMedium">{piecesWords('teacherSays', { name: asked.decidedBy })}</Text>
        <Text variant="bodyLarge">{asked.message}</Text>
      </View>
    </Notice>
  )
}
