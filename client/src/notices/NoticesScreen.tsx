import { MakeNotice, type Notice } from '@nibquill/contract'
import { acceptOf, type MediaKind } from '@nibquill/core'
import { useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import * as v from 'valibot'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { sentenceOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { FormChoices, FormLine } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { Attachments } from '../media/Attachments'
import { MaterialPicker } from '../media/MaterialPicker'
import { useClasses } from '../school'
import { useMakeNotice, useMoveNotice, useNotices, useReaders } from './noticesQueries'
import { t } from './words'
import { space } from '../kit/theme'

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
        title={home ? `${t('title')}, ${home.name}` : t('title')}
        back={`/class?classId=${home?.id ?? ''}`}
      />
      {writing && home ? (
        <NewNotice classId={home.id} onDone={() => setWriting(false)} />
      ) : (
        <Bar wrap>
          <BigButton small symbol="plus" label={t('newNotice')} onPress={() => setWriting(true)} />
        </Bar>
      )}
      {shown.map((notice) => (
        <NoticeBox key={notice.id} notice={notice} />
      ))}
      {shown.length === 0 && !writing ? (
        <Empty symbol="message" title={t('none')}>
          {t('noneHelp')}
        </Empty>
      ) : null}
    </Page>
  )
}

type Hung = { mediaId: string; role: 'voice' | 'picture'; name: string; kind: MediaKind }
type NoticeDraft = Omit<MakeNotice, 'mediaIds'> & { media: Hung[] }
const NoticeForm = v.pipe(
  v.custom<NoticeDraft>(() => true),
  v.transform(({ media, ...rest }) => ({
    ...rest,
    mediaIds: media.map(({ mediaId }) => mediaId),
  })),
  MakeNotice,
)
function NewNotice({ classId, onDone }: { classId: string; onDone: () => void }) {
  const make = useMakeNotice()
  const [id] = useState(() => newId())
  const start: NoticeDraft = { classId, audience: 'class', words: '', media: [] }
  const { control, watch, set, send, refused } = useFormOf(NoticeForm, start, async (input) => {
    await make.mutateAsync({ id, input })
    toast(t('sent'))
    onDone()
  })
  const { words, media } = watch()
  return (
    <Box title={t('newNotice')}>
      <FormChoices
        control={control}
        name="audience"
        label={t('audience')}
        options={(['class', 'parents'] as const).map((one) => ({
          value: one,
          label: t(`audiences.${one}`),
        }))}
      />
      <FormLine control={control} name="words" label={t('words')} lines={3} autoFocus />
      <MaterialPicker<Hung['role']>
        media={media}
        onChange={(now) => set({ media: now })}
        kinds={[
          { role: 'voice', label: t('sayIt'), voice: true },
          {
            role: 'picture',
            label: t('pictures'),
            accept: `${acceptOf('picture')},${acceptOf('film')}`,
          },
        ]}
      />
      {refused ? <ProblemNotice error={refused} /> : null}
      <BigButton
        label={t('send')}
        symbol="check"
        disabled={words.trim() === '' && media.length === 0}
        busy={make.isPending}
        onPress={send}
      />
    </Box>
  )
}

function NoticeBox({ notice }: { notice: Notice }) {
  const { whenWasIt } = useWhen()
  const move = useMoveNotice()
  const [open, setOpen] = useState(false)
  const readers = useReaders(notice.id, open)
  const { id } = notice
  const back = () => move.mutate({ id, move: 'restore' })
  // As a promise: the school may tell that it is gone, and its row with it, before it answers.
  const withdraw = () =>
    void move.mutateAsync({ id, move: 'withdraw' }).then(
      () => toast(t('withdrawn'), { undo: back }),
      (error: unknown) => toast(sentenceOf(error)),
    )
  return (
    <Box>
      <Hint>
        {[t(`audiences.${notice.audience}`), notice.from, whenWasIt(notice.createdAt)]
          .filter(Boolean)
          .join(' · ')}
      </Hint>
      {notice.words ? <Text variant="bodyLarge">{notice.words}</Text> : null}
      <Attachments items={notice.media} label={t('attached')} />
      <Bar wrap>
        {notice.seenBy ? (
          <BigButton
            small
            tone="quiet"
            symbol="eye"
            label={t('seenBy', { seen: notice.seenBy.seen, of: notice.seenBy.of })}
            onPress={() => setOpen(!open)}
          />
        ) : null}
        <BigButton small tone="again" symbol="close" label={t('withdraw')} onPress={withdraw} />
      </Bar>
      {open ? (
        <View role="list" aria-label={t('readers')}>
          {(readers.data ?? []).map((reader) => (
            <Bar
              key={reader.id}
              role="listitem"
              align="stretch"
              between
              gap="none"
              style={{ paddingVertical: space.tight }}
            >
              <Text variant="bodyMedium">{reader.name}</Text>
              <Hint>{reader.seenAt ? whenWasIt(reader.seenAt) : t('notYet')}</Hint>
            </Bar>
          ))}
        </View>
      ) : null}
    </Box>
  )
}
