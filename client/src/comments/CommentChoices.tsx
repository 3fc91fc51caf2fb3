import type { Comment } from '@nibquill/contract'
import { MAX_COMMENT_LENGTH, MAX_HIDDEN_WHY_LENGTH, type CommentMove } from '@nibquill/core'
import { useState } from 'react'
import { Dialog, Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Bar } from '../kit/layout'
import { Overlay } from '../kit/Overlay'
import { sentenceOf } from '../kit/problems'
import { space } from '../kit/theme'
import { toast } from '../kit/Toast'
import { t as kitWords } from '../kit/words'
import { useDecideComment, useSay } from './commentsQueries'
import { useUnsent } from './useUnsent'
import { t } from './words'

type Props = { comment: Comment; pieceId: string }

/** What a teacher does with what somebody said: show it, hide it, answer. */
export function CommentChoices({ comment, pieceId }: Props) {
  const decide = useDecide(comment)
  const [open, setOpen] = useState<'hide' | 'answer' | null>(null)
  const close = () => setOpen(null)
  const { by, state } = comment
  return (
    <Bar wrap>
      {state === 'shown' ? null : (
        <BigButton
          small
          tone="quiet"
          symbol="eye"
          label={t('show')}
          onPress={() => decide('show')}
        />
      )}
      {state === 'hidden' ? null : (
        <BigButton
          small
          tone="quiet"
          symbol="eyeoff"
          label={t('hide')}
          onPress={() => setOpen('hide')}
        />
      )}
      {by.role === 'teacher' ? null : (
        <BigButton
          small
          tone="quiet"
          symbol="message"
          label={t('answer')}
          onPress={() => setOpen('answer')}
        />
      )}
      {open === 'hide' ? (
        <HideDialog
          name={by.name}
          onClose={close}
          onHide={(why) => {
            close()
            decide('hide', why)
          }}
        />
      ) : null}
      {open === 'answer' ? (
        <AnswerDialog {...{ comment, pieceId }} onClose={close} onShow={() => decide('show')} />
      ) : null}
    </Bar>
  )
}

/** Shows or hides one, which can be taken back. */
function useDecide({ id, state, words }: Comment) {
  const change = useDecideComment()
  const failed = (error: unknown) => toast(sentenceOf(error))
  return (move: CommentMove, why = '') => {
    const after = move === 'show' ? 'shown' : 'hidden'
    const back = move === 'show' ? 'hide' : 'show'
    const undo = () => void change.mutateAsync({ id, move: back, seenState: after }).catch(failed)
    // As a promise: the line it was pressed on may be gone by then.
    void change
      .mutateAsync({ id, move, seenState: state, why })
      .then(() => toast(t(after, { words: shortOf(words) }), { undo }), failed)
  }
}

const SHORT = 40
const shortOf = (words: string): string => {
  if (!words) return t('whatWasSaidAloud')
  return words.length > SHORT ? `${words.slice(0, SHORT)}…` : words
}

function HideDialog({
  name,
  onClose,
  onHide,
}: {
  name: string
  onClose: () => void
  onHide: (why: string) => void
}) {
  const [why, setWhy] = useState('')
  return (
    <Overlay visible onClose={onClose} width={480} title={t('hideTitle', { name })}>
      <Dialog.Content style={{ gap: space.apart }}>
        <Text variant="bodyMedium">{t('hideHelp', { name })}</Text>
        <Field
          label={t('hideWhy')}
          value={why}
          onChangeText={setWhy}
          maxLength={MAX_HIDDEN_WHY_LENGTH}
          lines={2}
        />
        <Bar wrap align="stretch">
          <BigButton label={kitWords('cancel')} tone="quiet" onPress={onClose} grow />
          <BigButton label={t('hide')} tone="again" onPress={() => onHide(why.trim())} grow />
        </Bar>
      </Dialog.Content>
    </Overlay>
  )
}

function AnswerDialog({
  comment: { id, by, state },
  pieceId,
  onClose,
  onShow,
}: Props & { onClose: () => void; onShow: () => void }) {
  const say = useSay()
  const { typed, setTyped, forget } = useUnsent(`answer ${id}`)
  const answer = (then: () => void) =>
    say.mutate(
      { pieceId, words: typed.trim(), answersId: id },
      {
        onSuccess: () => {
          forget()
          onClose()
          toast(t('answered'))
          then()
        },
        onError: (error) => toast(sentenceOf(error)),
      },
    )
  const ready = typed.trim() !== '' && !say.isPending
  return (
    <Overlay visible onClose={onClose} width={520} title={t('answerTitle', { name: by.name })}>
      <Dialog.Content style={{ gap: space.apart }}>
        <Text variant="bodyMedium">
          {t(by.role === 'parent' ? 'answerFamilyHelp' : 'answerPupilHelp', { name: by.name })}
        </Text>
        <Field
          label={t('answerField')}
          value={typed}
          onChangeText={setTyped}
          maxLength={MAX_COMMENT_LENGTH}
          lines={3}
          autoFocus
        />
        <Bar wrap align="stretch">
          <BigButton label={kitWords('cancel')} tone="quiet" onPress={onClose} grow />
          <BigButton
            label={t('answer')}
            tone={state === 'waiting' ? 'quiet' : 'primary'}
            disabled={!ready}
            onPress={() => answer(() => undefined)}
            grow
          />
          {state === 'waiting' ? (
            <BigButton
              label={t('answerAndShow')}
              disabled={!ready}
              onPress={() => answer(onShow)}
              grow
            />
          ) : null}
        </Bar>
      </Dialog.Content>
    </Overlay>
  )
}
