import type { Piece } from '@nibquill/contract'
import { coverOf } from '@nibquill/core'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Press } from '../kit/Press'
import { canSpeak, say, silence } from '../kit/speech'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import { Sheet } from '../parts/Sheet'
import { PieceTrouble, useWords } from '../pieces'
import { LastStep } from './LastStep'
import { SpokenThoughts } from './SpokenThoughts'
import { t } from './words'

const THOUGHTS = [
  { name: 'well', symbol: 'well-done', colour: colours.ochre },
  { name: 'change', symbol: 'pencil', colour: colours.clay },
  { name: 'learned', symbol: 'bulb', colour: colours.sea },
] as const satisfies { name: string; symbol: SymbolName; colour: string }[]

/** For those who do not write yet: the work large, and three pictures that say themselves. */
export function PictureThoughts({ piece }: { piece: Piece }) {
  const { words, write, save } = useWords(piece)
  const { tablet } = useWidth()
  const said = THOUGHTS.map(({ name }) => t(`pictureThoughts.${name}`))
  const pick = (thought: string) => {
    // Tapped again it is not said; what was typed otherwise gives way.
    if (thought === words.reflection) {
      silence()
      return write({ reflection: '' })
    }
    write({ reflection: thought })
    if (canSpeak()) say(thought, () => undefined)
  }
  return (
    <LastStep piece={piece} step="thoughts" save={save}>
      <View style={{ alignItems: 'center' }}>
        <Sheet
          piece={{ cover: coverOf(piece.parts), state: piece.state, title: piece.title }}
          width={tablet ? 520 : 300}
        />
      </View>
      <Bar gap="close">
        <Text variant="titleMedium" style={{ flex: 1 }}>
          {t('pictureThoughtsHelp')}
        </Text>
        <Listen text={[t('pictureThoughtsHelp'), ...said].join(' ')} />
      </Bar>
      <Bar role="radiogroup" aria-label={t('stepTitles.thoughts')} align="stretch">
        {THOUGHTS.map(({ name, symbol, colour }) => {
          const thought = t(`pictureThoughts.${name}`)
          const chosen = words.reflection === thought
          return (
            <Press
              key={name}
              role="radio"
              selected={chosen}
              label={thought}
              onPress={() => pick(thought)}
              style={{ ...CARD, borderColor: chosen ? colours.aubergine : colours.rule }}
            >
              <DrawnSymbol name={symbol} size={tablet ? 72 : 48} colour={colour} />
              <Text variant={chosen ? 'titleSmall' : 'bodyMedium'} style={{ textAlign: 'center' }}>
                {thought}
              </Text>
            </Press>
          )
        })}
      </Bar>
      {words.reflection && !said.includes(words.reflection) ? (
        <Stack>
          <Text variant="bodyLarge">{words.reflection}</Text>
        </Stack>
      ) : null}
      <SpokenThoughts piece={piece} />
      <PieceTrouble pieceId={piece.id} />
    </LastStep>
  )
}

const CARD = {
  flex: 1,
  alignItems: 'center',
  gap: space.near,
  paddingVertical: space.apart,
  paddingHorizontal: space.close,
  borderWidth: 3,
  borderRadius: corners.button,
  backgroundColor: colours.sheet,
} as const
