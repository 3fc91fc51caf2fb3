import type { Piece } from '@nibquill/contract'
import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { IntoTheStack } from '../kit/FolderDrawing'
import { Heading, Page, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { colours } from '../kit/theme'
import { Sheet } from '../parts/Sheet'
import { OutboxLine } from '../pieces'
import { TakeOut } from './TakeOut'
import { t } from './words'

/**
 * Handed in by the pupil: the sheet lies in the tray, or goes there by itself once the tablet has
 * brought everything to school.
 */
export function InTray({
  piece,
  cover,
  arrived,
}: {
  piece: Piece
  cover: Piece['parts'][number] | null
  arrived: boolean
}) {
  const [title, help] = arrived
    ? ([t('handedIn'), t('handedInHelp')] as const)
    : ([t('goesIn'), t('goesInHelp')] as const)
  return (
    <Page
      foot={<BigButton label={t('toDesk')} symbol="desk" onPress={() => router.replace('/desk')} />}
    >
      <Stack role="status" gap="clear" style={{ alignItems: 'center', paddingTop: 24 }}>
        <IntoTheStack width={310}>
          <Sheet piece={{ cover, state: 'submitted', title: piece.title }} width={200} />
        </IntoTheStack>
        <Heading level={1}>{title}</Heading>
        <Text variant="titleMedium">{piece.title || piece.suggestedTitle}</Text>
        <Text variant="bodyLarge" style={{ textAlign: 'center', color: colours.inkSoft }}>
          {help}
        </Text>
        <Listen text={`${title}. ${help}`} />
        {arrived ? null : <OutboxLine />}
      </Stack>
      <View style={{ alignItems: 'center' }}>
        <TakeOut pieceId={piece.id} onOut={() => router.replace(`/my-pieces/${piece.id}`)} />
      </View>
    </Page>
  )
}
