import type { Piece } from '@nibquill/contract'
import { isVagueTitle, MAX_REFLECTION_LENGTH, MAX_TITLE_LENGTH, PIECE_STEPS } from '@nibquill/core'
import { router } from 'expo-router'
import { useRef } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useSession } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Press } from '../kit/Press'
import { colours, corners, targets } from '../kit/theme'
import { piecesStrings as strings, PieceTrouble, useWords, WithPiece } from '../pieces'
import { MadeTogether } from './MadeTogether'
import { MakeHead } from './MakeHead'
import { PartsStrip } from './PartsStrip'

export function WhatIsItScreen() {
  return <WithPiece>{(piece) => <WhatIsIt piece={piece} />}</WithPiece>
}

/** First of the last three steps: a name and what I think. */
function WhatIsIt({ piece }: { piece: Piece }) {
  const { words, write, save } = useWords(piece)
  const me = useSession().data?.person?.id
  const going = useRef(false)
  // A child taps twice: the second tap must not go on twice.
  const goOn = async () => {
    if (going.current) return
    going.current = true
    try {
      await save()
      router.push(`/my-pieces/${piece.id}/folder`)
    } catch {
      // What went wrong stands on the screen; the words stay where they are.
    } finally {
      going.current = false
    }
  }
  return (
    <View style={{ flex: 1 }}>
      <MakeHead title={strings.steps[0]!} step={1} onOn={() => void goOn()} />
      <Page foot={<BigButton label={strings.goOn} symbol="forward" onPress={() => void goOn()} />}>
        <PartsStrip pieceId={piece.id} parts={piece.parts} />
        <ItsName piece={piece} words={words} write={write} />
        <MyThoughts words={words} write={write} />
        <MyStep words={words} write={write} />
        {me ? <MadeTogether piece={piece} me={me} /> : null}
        <PieceTrouble pieceId={piece.id} />
      </Page>
    </View>
  )
}

type Work = ReturnType<typeof useWords>
type WordsProps = Pick<Work, 'words' | 'write'>

/** The title; one that says little gets a suggestion. */
function ItsName({ piece, words, write }: WordsProps & { piece: Piece }) {
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 6 }}>
        <View style={{ flex: 1 }}>
          <Field
            label={strings.titleLabel}
            value={words.title}
            onChangeText={(title) => write({ title })}
            maxLength={MAX_TITLE_LENGTH}
            large
          />
        </View>
        <Listen text={strings.titleHelp} />
      </View>
      {isVagueTitle(words.title, piece.folder?.name) && piece.suggestedTitle !== words.title ? (
        <View style={{ alignItems: 'flex-start' }}>
          <BigButton
            small
            tone="quiet"
            symbol="pencil"
            label={strings.suggestion(piece.suggestedTitle)}
            onPress={() => write({ title: piece.suggestedTitle })}
          />
        </View>
      ) : null}
    </>
  )
}

function MyThoughts({ words, write }: WordsProps) {
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <Text variant="labelMedium" style={{ color: colours.inkSoft, flex: 1 }}>
          {strings.reflectionHelp}
        </Text>
        <Listen text={strings.reflectionHelp} />
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
        {strings.starters.map((starter) => (
          <BigButton
            key={starter}
            small
            tone="quiet"
            label={`${starter.trim()}...`}
            onPress={() =>
              write({
                reflection: words.reflection.trim()
                  ? `${words.reflection.trimEnd()} ${starter}`
                  : starter,
              })
            }
          />
        ))}
      </View>
      <Field
        label={strings.reflectionLabel}
        value={words.reflection}
        onChangeText={(reflection) => write({ reflection })}
        maxLength={MAX_REFLECTION_LENGTH}
        lines={4}
      />
    </>
  )
}

function MyStep({ words, write }: WordsProps) {
  return (
    <>
      <Text variant="labelMedium" style={{ color: colours.inkSoft }}>
        {strings.makingStep}
      </Text>
      <View
        role="radiogroup"
        aria-label={strings.makingStep}
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}
      >
        {PIECE_STEPS.map((step) => {
          const chosen = words.step === step
          return (
            <Press
              key={step}
              role="radio"
              selected={chosen}
              label={strings.stepNames[step]}
              onPress={() => write({ step })}
              style={{
                minHeight: targets.pupil,
                paddingHorizontal: 18,
                borderRadius: corners.button,
                borderWidth: 2,
                borderColor: chosen ? colours.aubergine : colours.rule,
                backgroundColor: chosen ? colours.aubergineTint : colours.sheet,
                justifyContent: 'center',
              }}
            >
              <Text variant={chosen ? 'titleSmall' : 'bodyLarge'}>{strings.stepNames[step]}</Text>
            </Press>
          )
        })}
      </View>
    </>
  )
}
