import { router } from 'expo-router'
import { Text } from 'react-native-paper'
import { Bar } from '../kit/layout'
import { Press } from '../kit/Press'
import { ONE_WORD, space, targets } from '../kit/theme'
import {
  Camera,
  FilmCamera,
  PenPot,
  Rings,
  RuledPage,
  SpeakingTrumpet,
  TalkingPen,
} from '../parts/MakeThings'
import { t as partsWords } from '../parts/words'
import { t } from './words'

/** `below`: the address of the screen it is made on, below the piece's. */
const WAYS = [
  { word: partsWords('photo'), thing: Camera, below: 'photo' },
  { word: partsWords('draw'), thing: PenPot, below: 'draw' },
  { word: partsWords('say'), thing: SpeakingTrumpet, below: 'say' },
  { word: partsWords('show'), thing: TalkingPen, below: 'talk' },
  { word: partsWords('filmIt'), thing: FilmCamera, below: 'film' },
  { word: partsWords('write'), thing: RuledPage, below: 'write' },
  { word: partsWords('link'), thing: Rings, below: 'link' },
] as const
const THING_PX = 36

/** What can be added to a piece that is open: the things of the desk's shelf, in small. */
export function AddShelf({ pieceId }: { pieceId: string }) {
  return (
    <Bar align="stretch" gap="none" role="group" aria-label={t('addMore')}>
      {WAYS.map(({ word, thing: Thing, below }) => (
        <Press
          key={below}
          label={word}
          onPress={() => router.push(`/my-pieces/${pieceId}/${below}`)}
          style={{
            ...{ flex: 1, alignItems: 'center', justifyContent: 'flex-end' },
            ...{ minHeight: targets.pupil, gap: space.tight },
          }}
        >
          <Thing size={THING_PX} />
          <Text variant="labelMedium" style={ONE_WORD}>
            {word}
          </Text>
        </Press>
      ))}
    </Bar>
  )
}
