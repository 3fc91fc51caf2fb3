import type { Piece } from '@nibquill/contract'
import { coverOf, MAX_COMMENT_LENGTH } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useRef, useState } from 'react'
import { Text } from 'react-native-paper'
import type { Recorded } from '../device/useRecorded'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Head } from '../kit/Head'
import { Bar, Page, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { toast } from '../kit/Toast'
import { SpokenWords } from '../media/VoiceRecorder'
import { Sheet } from '../parts/Sheet'
import { usePieceWork, WithPiece } from '../pieces'
import { useComments } from './commentsQueries'
import { useUnsent } from './useUnsent'
import { t } from './words'

/**
 * A pupil says something about a piece: to all who make it, or to one teacher alone; or what they think
 * of what they made with others.
 */
export function TellScreen() {
  const { just, think } = useLocalSearchParams<{ just?: string; think?: string }>()
  return (
    <WithPiece>
      {(piece) => <Tell piece={piece} alone={just !== undefined} thoughts={think !== undefined} />}
    </WithPiece>
  )
}

type Teacher = { id: string; name: string }

function Tell({ piece, alone, thoughts }: { piece: Piece; alone: boolean; thoughts: boolean }) {
  const teachers = useComments(piece.id).data?.with ?? []
  const [chosen, setChosen] = useState<Teacher | null>(null)
  const teacher = alone ? (teachers.length === 1 ? teachers[0]! : chosen) : null
  const back = `/my-pieces/${piece.id}` as const
  const title = t(alone && !teacher ? 'tellWhom' : thoughts ? 'thinkTitle' : 'tellTitle')
  if (alone && !teacher)
    return (
      <Page max={560}>
        <Head pupil title={title} back={back} />
        <Stack gap="near">
          {teachers.map((one) => (
            <BigButton
              key={one.id}
              symbol="people"
              label={one.name}
              onPress={() => setChosen(one)}
            />
          ))}
        </Stack>
      </Page>
    )
  return <Words key={teacher?.id ?? ''} {...{ piece, teacher, thoughts, back, title }} />
}

function Words({
  piece,
  teacher,
  thoughts,
  back,
  title,
}: {
  piece: Piece
  teacher: Teacher | null
  thoughts: boolean
  back: `/my-pieces/${string}`
  title: string
}) {
  const work = usePieceWork(piece.id)
  const { typed, setTyped, forget } = useUnsent(
    `${piece.id} ${thoughts ? 'thoughts' : (teacher?.id ?? '')}`,
  )
  const [said, setSaid] = useState<Recorded | null>(null)
  const help = teacher
    ? t('tellPrivately', { name: teacher.name })
    : t(thoughts ? 'thinkHelp' : 'tellHelp')
  const ready = typed.trim() !== '' || said !== null
  const going = useRef(false)
  // A child taps twice.
  const send = async () => {
    if (going.current) return
    going.current = true
    await work.say(typed.trim(), said?.file ?? null, { withId: teacher?.id ?? null, thoughts })
    forget()
    if (router.canGoBack()) router.back()
    else router.replace(back)
    toast(teacher ? t('sentPrivately', { name: teacher.name }) : t('sent'))
  }
  return (
    <Page
      max={560}
      foot={
        <BigButton
          symbol="forward"
          label={t('send')}
          disabled={!ready}
          onPress={() => void send()}
        />
      }
    >
      <Head pupil title={title} back={back} />
      <Bar gap="apart">
        <Sheet
          piece={{ cover: coverOf(piece.parts), state: piece.state, title: piece.title }}
          width={120}
        />
        <Stack gap="close" style={{ flex: 1 }}>
          <Text variant="bodyLarge">{help}</Text>
          <Listen text={`${title} ${help}`} />
        </Stack>
      </Bar>
      <SpokenWords label={t('tellAloud')} said={said} onChange={setSaid} />
      <Field
        label={t(thoughts ? 'thinkField' : 'tellField')}
        value={typed}
        onChangeText={setTyped}
        maxLength={MAX_COMMENT_LENGTH}
        lines={4}
      />
    </Page>
  )
}
