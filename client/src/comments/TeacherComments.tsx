import type { Comment, Piece } from '@nibquill/contract'
import { MAX_COMMENT_LENGTH } from '@nibquill/core'
import { inThreads } from '@nibquill/core/comments/inThreads'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import type { Recorded } from '../device/useRecorded'
import { BigButton } from '../kit/BigButton'
import { Tabs } from '../kit/choices'
import { Field } from '../kit/Field'
import { Hint } from '../kit/form'
import { Bar, Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { colours, space } from '../kit/theme'
import { sendVoice } from '../media/sendVoice'
import { SpokenWords } from '../media/VoiceRecorder'
import { CommentChoices } from './CommentChoices'
import { useComments, useSay, useSayPrivately } from './commentsQueries'
import { Saying } from './Saying'
import { useUnsent } from './useUnsent'
import { t } from './words'

/** How a comment stands, to a teacher. */
const teacherNote = ({ by, thoughts, state, hiddenWhy }: Comment): string | undefined => {
  if (state === 'shown') return undefined
  if (state === 'waiting' && thoughts) return t('teacherStates.thoughtsWait', { name: by.name })
  if (state === 'waiting') return t('teacherStates.waiting')
  return hiddenWhy ? t('teacherStates.hiddenWhy', { why: hiddenWhy }) : t('teacherStates.hidden')
}

/** Beside the work: what was said about it, what to do with it, and saying something oneself. */
export function TeacherComments({ piece }: { piece: Pick<Piece, 'id'> }) {
  const said = useComments(piece.id).data
  if (!said) return null
  return (
    <Stack role="region" aria-label={t('commentsTitle')} gap="apart">
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {t('commentsTitle')}
      </Text>
      {said.comments.length > 0 ? (
        <Stack role="list" gap="apart">
          {inThreads(said.comments).flatMap(({ comment, answers }) => [
            <Saying key={comment.id} {...comment} note={teacherNote(comment)}>
              <CommentChoices comment={comment} pieceId={piece.id} />
            </Saying>,
            ...answers.map((answer) => (
              <Stack key={answer.id} style={{ marginLeft: space.clear }}>
                <Saying {...answer} note={teacherNote(answer)}>
                  <CommentChoices comment={answer} pieceId={piece.id} />
                </Saying>
              </Stack>
            )),
          ])}
        </Stack>
      ) : null}
      {said.with.map(({ id, name }) => {
        const words = said.privateWords.filter(({ pupil }) => pupil.id === id)
        return words.length > 0 ? (
          <Stack key={id} gap="near" role="group" aria-label={t('privately', { name })}>
            <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
              {t('privately', { name })}
            </Text>
            <Stack role="list" gap="apart">
              {words.map((one) => (
                <Saying key={one.id} {...one} />
              ))}
            </Stack>
          </Stack>
        ) : null
      })}
      <SaySomething pieceId={piece.id} makers={said.with} />
    </Stack>
  )
}

/** To all who make it, or to one of them alone. */
function SaySomething({
  pieceId,
  makers,
}: {
  pieceId: string
  makers: readonly { id: string; name: string }[]
}) {
  const say = useSay()
  const sayPrivately = useSayPrivately()
  const [open, setOpen] = useState(false)
  const [to, setTo] = useState('')
  const [said, setSaid] = useState<Recorded | null>(null)
  const [sending, setSending] = useState(false)
  const [error, setError] = useState<unknown>(null)
  const { typed, setTyped, forget } = useUnsent(`comment ${pieceId}`)
  const name = makers.find(({ id }) => id === to)?.name
  const send = async () => {
    setSending(true)
    setError(null)
    try {
      const spoken = said ? { voiceId: await sendVoice(said.file) } : {}
      const what = { pieceId, words: typed.trim(), ...spoken }
      await (to ? sayPrivately.mutateAsync({ ...what, withId: to }) : say.mutateAsync(what))
      forget()
      setSaid(null)
      setOpen(false)
    } catch (failure) {
      setError(failure)
    }
    setSending(false)
  }
  if (!open && typed === '')
    return (
      <Bar>
        <BigButton
          small
          tone="quiet"
          symbol="message"
          label={t('sayUnder')}
          onPress={() => setOpen(true)}
        />
      </Bar>
    )
  return (
    <Stack gap="near">
      <Field
        autoFocus={open}
        label={t('sayUnder')}
        value={typed}
        onChangeText={setTyped}
        maxLength={MAX_COMMENT_LENGTH}
        lines={2}
      />
      <SpokenWords label={t('sayAloud')} said={said} onChange={setSaid} />
      {typed.trim() !== '' || said ? (
        <>
          <Tabs
            label={t('whoReads')}
            value={to}
            options={[
              { value: '', label: t('makersRead') },
              ...makers.map((one) => ({
                value: one.id,
                label: t('justPupil', { name: one.name }),
              })),
            ]}
            onChange={setTo}
          />
          <Hint>{name ? t('justPupilHelp', { name }) : t('makersReadHelp')}</Hint>
          {error ? <ProblemNotice error={error} /> : null}
          <Bar>
            <BigButton small label={t('say')} busy={sending} onPress={() => void send()} />
          </Bar>
        </>
      ) : null}
    </Stack>
  )
}
