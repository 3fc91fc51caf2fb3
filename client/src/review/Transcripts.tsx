import type { FilmPart, Part, TalkPart, VoicePart } from '@nibquill/contract'
import { MAX_WRITING_LENGTH } from '@nibquill/core'
import { useRef, useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Stack } from '../kit/layout'
import { codeOf, detailsOf, sentenceOf } from '../kit/problems'
import { colours } from '../kit/theme'
import { toast } from '../kit/Toast'
import { nameOf } from '../parts/partKinds'
import { useSavesItself } from '../pieces'
import { useTranscribe } from './reviewQueries'
import { t } from './words'

type Recorded = VoicePart | TalkPart | FilmPart
const isRecorded = (part: Part): part is Recorded => 'typed' in part

/** What is said in the recordings of a piece, to be typed by its teacher. */
export function Transcripts({ pieceId, parts }: { pieceId: string; parts: Part[] }) {
  const shown = parts.flatMap((part, i) =>
    isRecorded(part) ? [{ part, name: nameOf(part, i) }] : [],
  )
  return shown.map(({ part, name }) => (
    <Transcript key={part.id} pieceId={pieceId} part={part} name={name} />
  ))
}

function Transcript({ pieceId, part, name }: { pieceId: string; part: Recorded; name: string }) {
  const [opened, setOpened] = useState(part.typed !== '')
  if (part.text.trim() !== '')
    return (
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {t('typedByMakers', { part: name })}
      </Text>
    )
  if (!opened)
    return (
      <BigButton
        small
        tone="quiet"
        symbol="pencil"
        label={t('typeWhatIsSaid', { part: name })}
        onPress={() => setOpened(true)}
      />
    )
  return <Typing pieceId={pieceId} part={part} name={name} />
}

/** It saves itself; where two type at once, both are seen before either is written over. */
function Typing({ pieceId, part, name }: { pieceId: string; part: Recorded; name: string }) {
  const transcribe = useTranscribe()
  const [text, setText] = useState(part.typed)
  const agreed = useRef(part.typed)
  useSavesItself(
    text,
    (a, b) => a === b,
    async (now) => {
      const seenText = agreed.current
      try {
        await transcribe.mutateAsync({ pieceId, partId: part.id, text: now, seenText })
        agreed.current = now
      } catch (error) {
        if (codeOf(error) === 'piece/part-changed') {
          const theirs = String(detailsOf(error).text)
          agreed.current = theirs
          setText(`${theirs}\n\n${now}`)
        }
        toast(sentenceOf(error))
      }
    },
  )
  return (
    <Stack gap="tight">
      <Field
        label={t('whatIsSaid', { part: name })}
        value={text}
        lines={3}
        maxLength={MAX_WRITING_LENGTH}
        onChangeText={setText}
      />
    </Stack>
  )
}
