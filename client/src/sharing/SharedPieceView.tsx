import type { SharedPiece } from '@nibquill/contract'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { fullDayOf } from '../kit/dates'
import { Heading, Stack } from '../kit/layout'
import { Player } from '../media/Player'
import { PartsViewer } from '../parts/PartsViewer'
import { colours, space } from '../kit/theme'
import { t } from './words'

/** One approved piece as a family sees it: the work large, the child's words below. */
export function SharedPieceView({
  piece,
  link,
  height,
}: {
  piece: SharedPiece
  link?: string
  height: number
}) {
  return (
    <Stack role="article" aria-label={piece.title}>
      <View style={{ height }}>
        <PartsViewer parts={piece.parts} title={piece.title} link={link} />
      </View>
      <Heading>{piece.title}</Heading>
      {piece.reflection ? <Text variant="bodyLarge">{piece.reflection}</Text> : null}
      {piece.reason || piece.reasonVoice ? (
        <View
          style={{
            borderLeftWidth: 4,
            borderLeftColor: colours.verdigris,
            paddingLeft: space.apart,
          }}
        >
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
            {t('picked')}
          </Text>
          {piece.reason ? <Text variant="bodyLarge">{piece.reason}</Text> : null}
          {piece.reasonVoice ? <Player file={piece.reasonVoice} link={link} /> : null}
        </View>
      ) : null}
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {[piece.folderName, piece.termName, fullDayOf(piece.approvedAt)]
          .filter(Boolean)
          .join(' · ')}
      </Text>
    </Stack>
  )
}
