import type { Notice } from '@nibquill/contract'
import { acceptOf, type MediaKind } from '@nibquill/core'
import { useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { sentenceOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Field } from '../kit/Field'
import { Choices } from '../kit/choices'
import { Box, faultsOf, Hint, Row, sentence } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { Attachments } from '../media/Attachments'
import { MaterialPicker } from '../media/MaterialPicker'
import { useClasses } from '../school'
import { useMakeNotice, useMoveNotice, useNotices, useReaders } from './noticesQueries'
import { strings } from './strings'

/** What the teacher tells a class or its parents, and who has seen it. */
export function NoticesScreen() {
  const { classId } = useLocalSearchParams<{ classId?: string }>()
  const classes = useClasses()
  const notices = useNotices()
  const [writing, setWriting] = useState(false)
  if (!isHere(notices) || !isHere(classes)) return <NotYet of={[notices, classes]} />
  const home =
    classes.data?.find(({ id }) => id === classId) ?? classes.data?.find(({ mine }) => mine)
  const shown = notices.data.filter((notice) => notice.classId === home?.id)
  return (
    <Page>
      <Head
        title={home ? `${strings.title}, ${home.name}` : strings.title}
        back={`/class?classId=${home?.id ?? ''}`}
      />
      {writing && home ? (
        <NewNotice classId={home.id} onDone={() => setWriting(false)} />
      ) : (
        <Row>
          <BigButton
            small
            symbol="plus"
            label={strings.newNotice}
            onPress={() => setWriting(true)}
          />
        </Row>
      )}
      {shown.map((notice) => (
        <NoticeBox key={notice.id} notice={notice} />
      ))}
      {shown.length === 0 && !writing ? (
        <Empty symbol="message" title={strings.none}>
          {strings.noneHelp}
        </Empty>
      ) : null}
    </Page>
  )
}

type Hung = { mediaId: string; role: 'voice' | 'picture'; name: string; kind: MediaKind }
function NewNotice({ classId, onDone }: { classId: string; onDone: () => void }) {
  const make = useMakeNotice()
  const [id] = useState(() => newId())
  const [audience, setAudience] = useState<'class' | 'parents'>('class')
  const [words, setWords] = useState('')
  const [media, setMedia] = useState<Hung[]>([])
  const faults = faultsOf(make.error)
  const send = () =>
    make.mutate(
      { id, input: { classId, audience, words, mediaIds: media.map(({ mediaId }) => mediaId) } },
      {
        onSuccess: () => {
          toast(strings.sent)
          onDone()
        },
      },
    )
  return (
    <Box title={strings.newNotice}>
      <Choices
        label={strings.audience}
        value={audience}
        options={(['class', 'parents'] as const).map((one) => ({
          value: one,
          label: strings.audiences[one],
        }))}
        onChange={setAudience}
      />
      <Field
        label={strings.words}
        value={words}
        onChangeText={setWords}
        lines={3}
        error={sentence(faults.words?.[0])}
        autoFocus
      />
      <MaterialPicker<Hung['role']>
        media={media}
        onChange={setMedia}
        kinds={[
          { role: 'voice', label: strings.sayIt, voice: true },
          { role: 'picture', label: strings.pictures, accept: acceptOf('picture') },
        ]}
      />
      {make.isError && !faults.words ? <ProblemNotice error={make.error} /> : null}
      <BigButton
        label={strings.send}
        symbol="check"
        disabled={words.trim() === '' && media.length === 0}
        busy={make.isPending}
        onPress={send}
      />
    </Box>
  )
}

function NoticeBox({ notice }: { notice: Notice }) {
  const move = useMoveNotice()
  const [open, setOpen] = useState(false)
  const readers = useReaders(notice.id, open)
  const { id } = notice
  const back = () => move.mutate({ id, move: 'restore' })
  // As a promise: the school may tell that it is gone, and its row with it, before it answers.
  const withdraw = () =>
    void move.mutateAsync({ id, move: 'withdraw' }).then(
      () => toast(strings.withdrawn, back),
      (error: unknown) => toast(sentenceOf(error)),
    )
  return (
    <Box>
      <Hint>
        {strings.about(
          strings.audiences[notice.audience],
          notice.from,
          whenWasIt(notice.createdAt),
        )}
      </Hint>
      {notice.words ? <Text variant="bodyLarge">{notice.words}</Text> : null}
      <Attachments items={notice.media} label={strings.attached} />
      <Row>
        {notice.seenBy ? (
          <BigButton
            small
            tone="quiet"
            symbol="eye"
            label={strings.seenBy(notice.seenBy.seen, notice.seenBy.of)}
            onPress={() => setOpen(!open)}
          />
        ) : null}
        <BigButton small tone="again" symbol="close" label={strings.withdraw} onPress={withdraw} />
      </Row>
      {open ? (
        <View role="list" aria-label={strings.readers}>
          {(readers.data ?? []).map((reader) => (
            <View
              key={reader.id}
              role="listitem"
              style={{ flexDirection: 'row', justifyContent: 'space-between', paddingVertical: 4 }}
            >
              <Text variant="bodyMedium">{reader.name}</Text>
              <Hint>{reader.seenAt ? whenWasIt(reader.seenAt) : strings.notYet}</Hint>
            </View>
          ))}
        </View>
      ) : null}
    </Box>
  )
}
