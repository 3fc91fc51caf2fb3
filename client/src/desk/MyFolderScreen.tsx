import type { PieceLine } from '@nibquill/contract'
import { isOpen } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { OpenFolder } from '../folders'
import { Stack, Tile } from '../kit/layout'
import { Press } from '../kit/Press'
import { colours, space, stateColours } from '../kit/theme'
import { Sheet } from '../parts/Sheet'
import { piecesWords, useMyPieces, useShownLines } from '../pieces'
import { AddShelf } from './AddShelf'
import { Section } from './Section'
import { t } from './words'

/** What lies in a pupil's folder, and above it what will: more can be added to that from here. */
export function MyFolderScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const shown = useShownLines(useMyPieces().data?.pieces ?? [])
  const here = shown.filter(({ folder, state }) => folder?.id === id && state !== 'approved')
  return (
    <OpenFolder
      shelf="/my-folders"
      withNames={false}
      onOpen={({ id: pieceId }) => router.push(`/my-pieces/${pieceId}`)}
      above={
        here.length > 0 ? (
          <Section title={t('notYetIn')} count={here.length}>
            {here.map((piece) => (
              <NotYetIn key={piece.id} piece={piece} />
            ))}
          </Section>
        ) : null
      }
    />
  )
}

/** A piece that is on its way into the folder: plainly not approved yet. */
function NotYetIn({ piece }: { piece: PieceLine }) {
  const { id, title, task, state, closed, message } = piece
  const open = isOpen(state) && !closed
  const words = closed && isOpen(state) ? 'closedSays' : STANDS[state]
  return (
    <Tile gap="near">
      <Press onPress={() => router.push(`/my-pieces/${id}`)} style={ROW}>
        <Sheet piece={piece} width={118} />
        <Stack gap="hair" style={{ flex: 1 }}>
          <Text variant="titleMedium">{title || task?.title || piecesWords('untitled')}</Text>
          <Text variant="labelMedium" style={{ color: stateColours[state].text }}>
            {t(words)}
          </Text>
          {state === 'returned' && message ? (
            <Text variant="bodyMedium" numberOfLines={2} style={{ color: colours.inkSoft }}>
              “{message}”
            </Text>
          ) : null}
        </Stack>
      </Press>
      {open ? (
        <View style={{ maxWidth: 560 }}>
          <AddShelf pieceId={id} />
        </View>
      ) : null}
    </Tile>
  )
}

const STANDS = {
  draft: 'notHandedIn',
  submitted: 'waitsInTray',
  returned: 'anotherGo',
  approved: 'done',
} as const
const ROW = { flexDirection: 'row', alignItems: 'center', gap: space.apart } as const
