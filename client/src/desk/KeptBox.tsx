import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useKeptIn } from '../folders'
import { BigButton } from '../kit/BigButton'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { t } from './words'

type Look = NonNullable<Piece['folder']>

/** Where I keep what hangs in a folder and was made with others; nothing of what I made alone. */
export function useKept(piece: Piece): {
  together: boolean
  mayChoose: boolean
  where: Look | null
} {
  const asked = piece.approved && piece.versions.some(({ makers }) => makers.length > 1)
  const { together = false, mayChoose = false, folder } = useKeptIn(piece.id, asked).data ?? {}
  return { together, mayChoose, where: (piece.state === 'approved' && folder) || null }
}

/** What we made together lies in a folder of my own choosing on my shelf. */
export function KeptBox({ pieceId, where }: { pieceId: string; where: Look | null }) {
  if (!where) return null
  const says = t('keptIn', { folder: where.name })
  return (
    <Bar gap="apart" role="group" aria-label={says}>
      <FolderDrawing folder={where} width={92} />
      <Stack gap="close" style={{ flex: 1 }}>
        <Bar gap="close">
          <Text variant="titleMedium" style={{ flex: 1 }}>
            {says}
          </Text>
          <Listen text={says} />
        </Bar>
        <View style={{ alignItems: 'flex-start' }}>
          <BigButton
            small
            tone="quiet"
            symbol="folder"
            label={t('keepElsewhere')}
            onPress={() => router.push(`/my-pieces/${pieceId}/keep`)}
          />
        </View>
      </Stack>
    </Bar>
  )
}
