import type { PieceLine } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { colours, space } from '../kit/theme'
import { Sheet } from './Sheet'

/** A piece with its title, to open. */
export function PieceTile({
  piece,
  onPress,
  under,
  width = 158,
}: {
  piece: PieceLine
  onPress: () => void
  under?: string
  width?: number
}) {
  return (
    <Press onPress={onPress} style={{ width, gap: space.close }}>
      <Sheet piece={piece} width={width} />
      <Text variant="titleSmall" numberOfLines={2}>
        {piece.title}
      </Text>
      <Text variant="bodySmall" numberOfLines={1} style={{ color: colours.inkSoft }}>
        {under ?? piece.folder?.name ?? ''}
      </Text>
    </Press>
  )
}
