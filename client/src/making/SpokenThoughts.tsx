import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { BigButton } from '../kit/BigButton'
import { Stack } from '../kit/layout'
import { Player } from '../media/Player'
import { t } from './words'

/**
 * What one thinks can be said instead of written: it lies in the piece as a voice of that name, and
 * is heard again here.
 */
export function SpokenThoughts({ piece }: { piece: Piece }) {
  const spoken = piece.parts.flatMap((part) =>
    part.kind === 'voice' && part.name === t('whatIThink') ? [part] : [],
  )
  return (
    <Stack gap="near">
      {spoken.map((part) => (
        <Player key={part.id} file={part.files.sound} heard={part.heard} />
      ))}
      <BigButton
        tone="quiet"
        symbol="microphone"
        label={t(spoken.length > 0 ? 'sayMoreThoughts' : 'sayMyThoughts')}
        onPress={() => router.push(`/my-pieces/${piece.id}/say?as=thoughts`)}
      />
    </Stack>
  )
}
