import { router } from 'expo-router'
import type { ComponentType } from 'react'
import { Text } from 'react-native-paper'
import { Bar } from '../kit/layout'
import { Press } from '../kit/Press'
import { space, targets } from '../kit/theme'
import { Camera, FilmCamera, PenPot, Rings, RuledPage, SpeakingTrumpet } from '../parts/MakeThings'
import { partWord } from '../parts/partKinds'
import { piecesWords } from '../pieces'
import { t } from './words'

/** `below`: the address of the screen it is made on, below the piece's. */
type Way = {
  label: string
  word: string
  thing: ComponentType<{ size: number }>
  below: 'photo' | 'draw' | 'say' | 'film' | 'write' | 'link'
}
const WAYS: readonly Way[] = [
  { label: piecesWords('addPhoto'), word: partWord('photo'), thing: Camera, below: 'photo' },
  { label: t('addDrawing'), word: partWord('drawing'), thing: PenPot, below: 'draw' },
  { label: t('addVoice'), word: partWord('voice'), thing: SpeakingTrumpet, below: 'say' },
  { label: t('addFilm'), word: partWord('film'), thing: FilmCamera, below: 'film' },
  { label: t('addWriting'), word: partWord('writing'), thing: RuledPage, below: 'write' },
  { label: t('addLink'), word: partWord('link'), thing: Rings, below: 'link' },
]
const THING_PX = 36

/** What can be added to a piece that is open: the things of the desk's shelf, in small. */
export function AddShelf({ pieceId }: { pieceId: string }) {
  return (
    <Bar align="stretch" gap="none" role="group" aria-label={t('addMore')}>
      {WAYS.map(({ label, word, thing: Thing, below }) => (
        <Press
          key={below}
          label={label}
          onPress={() => router.push(`/my-pieces/${pieceId}/${below}`)}
          style={{
            ...{ flex: 1, alignItems: 'center', justifyContent: 'flex-end' },
            ...{ minHeight: targets.pupil, gap: space.tight },
          }}
        >
          <Thing size={THING_PX} />
          <Text variant="labelMedium">{word}</Text>
        </Press>
      ))}
    </Bar>
  )
}
