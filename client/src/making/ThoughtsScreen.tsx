import type { Piece } from '@nibquill/contract'
import { coverOf, dropUnfinishedStarter, MAX_REFLECTION_LENGTH } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Field } from '../kit/Field'
import { Bar, Split, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Starters } from '../kit/Starters'
import { Sheet } from '../parts/Sheet'
import { PieceTrouble, useWords, WithPiece } from '../pieces'
import { namesOf } from '../words'
import { LastStep, useYoung } from './LastStep'
import { messages } from './messages'
import { PictureThoughts } from './PictureThoughts'
import { SpokenThoughts } from './SpokenThoughts'
import { t } from './words'

export function ThoughtsScreen() {
  const young = useYoung()
  return (
    <WithPiece>
      {(piece) => (young ? <PictureThoughts piece={piece} /> : <Thoughts piece={piece} />)}
    </WithPiece>
  )
}

const starters = () =>
  namesOf(messages.reflectionStarters).map((name) => t(`reflectionStarters.${name}`))

/** What I think of it, begun by a tap if I like; what is only begun is not handed in. */
function Thoughts({ piece }: { piece: Piece }) {
  const { words, write, save } = useWords(piece)
  const [typed, setTyped] = useState(words.reflection)
  const { tablet } = useWidth()
  const put = (text: string) => {
    setTyped(text)
    write({ reflection: dropUnfinishedStarter(text, starters()) })
  }
  return (
    <LastStep piece={piece} step="thoughts" save={save}>
      <Split beside={tablet} gap="far" style={{ alignItems: 'center' }}>
        <Sheet
          piece={{ cover: coverOf(piece.parts), state: piece.state, title: piece.title }}
          width={tablet ? 300 : 200}
        />
        <Stack gap="near" style={tablet ? { flex: 1 } : { width: '100%' }}>
          <Bar gap="close">
            <Text variant="bodyLarge" style={{ flex: 1 }}>
              {t('reflectionHelp')}
            </Text>
            <Listen text={t('reflectionHelp')} />
          </Bar>
          <Starters
            of={starters()}
            onPick={(starter) => {
              const said = dropUnfinishedStarter(typed, starters()).trimEnd()
              put(said ? `${said} ${starter}` : starter)
            }}
          />
        </Stack>
      </Split>
      <View>
        <Field
          label={t('reflectionLabel')}
          value={typed}
          onChangeText={put}
          maxLength={MAX_REFLECTION_LENGTH}
          lines={4}
        />
      </View>
      <SpokenThoughts piece={piece} />
      <PieceTrouble pieceId={piece.id} />
    </LastStep>
  )
}
