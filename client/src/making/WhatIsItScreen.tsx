import type { Piece } from '@nibquill/contract'
import { coverOf, isVagueTitle, MAX_TITLE_LENGTH, PIECE_STEPS } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useSession } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Press } from '../kit/Press'
import { colours, corners, space, targets } from '../kit/theme'
import { Sheet } from '../parts/Sheet'
import { PieceTrouble, useWords, WithPiece } from '../pieces'
import { LastStep } from './LastStep'
import { MadeTogether } from './MadeTogether'
import { t as kitWords } from '../kit/words'
import { t } from './words'

export function WhatIsItScreen() {
  return <WithPiece>{(piece) => <WhatIsIt piece={piece} />}</WithPiece>
}

/** A name. Who made it too, and how far it is, stay folded away until they are wanted. */
function WhatIsIt({ piece }: { piece: Piece }) {
  const { words, write, save } = useWords(piece)
  const me = useSession().data?.person?.id
  return (
    <LastStep piece={piece} step="what" save={save}>
      <View style={{ alignItems: 'center' }}>
        <Sheet
          piece={{ cover: coverOf(piece.parts), state: piece.state, title: piece.title }}
          width={240}
        />
      </View>
      <ItsName piece={piece} words={words} write={write} />
      {me ? <MadeTogether piece={piece} me={me} /> : null}
      <MyStep words={words} write={write} />
      <PieceTrouble pieceId={piece.id} />
    </LastStep>
  )
}

type WordsProps = Pick<ReturnType<typeof useWords>, 'words' | 'write'>

/** The title; one that says little gets a suggestion. */
function ItsName({ piece, words, write }: WordsProps & { piece: Piece }) {
  return (
    <Stack gap="near">
      <Bar align="flex-end" gap="close">
        <View style={{ flex: 1 }}>
          <Field
            label={t('titleLabel')}
            value={words.title}
            onChangeText={(title) => write({ title })}
            maxLength={MAX_TITLE_LENGTH}
            large
          />
        </View>
        <Listen text={t('titleHelp')} />
      </Bar>
      {isVagueTitle(words.title, piece.folder?.name) && piece.suggestedTitle !== words.title ? (
        <View style={{ alignItems: 'flex-start' }}>
          <BigButton
            small
            tone="quiet"
            symbol="pencil"
            label={t('suggestion', { title: piece.suggestedTitle })}
            onPress={() => write({ title: piece.suggestedTitle })}
          />
        </View>
      ) : null}
    </Stack>
  )
}

function MyStep({ words, write }: WordsProps) {
  const [open, setOpen] = useState(false)
  return (
    <Stack gap="near">
      <View style={{ alignItems: 'flex-start' }}>
        <BigButton
          small
          tone="quiet"
          symbol={open ? 'up' : 'down'}
          label={t('stepNow', { step: kitWords(`stepNames.${words.step}`) })}
          onPress={() => setOpen(!open)}
        />
      </View>
      {open ? (
        <Bar role="radiogroup" aria-label={t('makingStep')} wrap align="stretch">
          {PIECE_STEPS.map((step) => {
            const chosen = words.step === step
            return (
              <Press
                key={step}
                role="radio"
                selected={chosen}
                label={kitWords(`stepNames.${step}`)}
                onPress={() => write({ step })}
                style={{
                  minHeight: targets.pupil,
                  paddingHorizontal: space.clear,
                  borderRadius: corners.button,
                  borderWidth: 2,
                  borderColor: chosen ? colours.aubergine : colours.rule,
                  backgroundColor: chosen ? colours.aubergineTint : colours.sheet,
                  justifyContent: 'center',
                }}
              >
                <Text variant={chosen ? 'titleSmall' : 'bodyLarge'}>
                  {kitWords(`stepNames.${step}`)}
                </Text>
              </Press>
            )
          })}
        </Bar>
      ) : null}
    </Stack>
  )
}
