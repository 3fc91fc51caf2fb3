import type { Comment } from '@nibquill/contract'
import { MAX_COMMENT_LENGTH } from '@nibquill/core'
import { inThreads } from '@nibquill/core/comments/inThreads'
import { useState } from 'react'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Hint } from '../kit/form'
import { Bar, Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { space } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useComments, useSay } from './commentsQueries'
import { Saying } from './Saying'
import { useUnsent } from './useUnsent'
import { t } from './words'

const noteOf = ({ by, state, hiddenWhy }: Comment): string | undefined => {
  if (!by.mine || state === 'shown') return undefined
  if (state === 'waiting') return t('adultStates.waiting')
  return hiddenWhy ? t('adultStates.hiddenWhy', { why: hiddenWhy }) : t('adultStates.hidden')
}

/** Under a piece at home: what oneself said about it, what the teacher answered, and saying more. */
export function FamilyComments({ pieceId, childName }: { pieceId: string; childName: string }) {
  const said = useComments(pieceId).data
  const say = useSay()
  const [open, setOpen] = useState(false)
  const { typed, setTyped, forget } = useUnsent(`family ${pieceId}`)
  const send = () =>
    say.mutate(
      { pieceId, words: typed.trim() },
      {
        onSuccess: () => {
          forget()
          setOpen(false)
          toast(t('familySent'))
        },
      },
    )
  return (
    <Stack role="region" aria-label={t('familyTitle')} gap="near">
      <Stack role="list" gap="apart">
        {inThreads(said?.comments ?? []).flatMap(({ comment, answers }) => [
          <Saying key={comment.id} {...comment} note={noteOf(comment)} />,
          ...answers.map((answer) => (
            <Stack key={answer.id} style={{ marginLeft: space.clear }}>
              <Saying {...answer} />
            </Stack>
          )),
        ])}
      </Stack>
      {open || typed !== '' ? (
        <Field
          label={t('familyTitle')}
          value={typed}
          onChangeText={setTyped}
          maxLength={MAX_COMMENT_LENGTH}
          lines={2}
          autoFocus={open}
        />
      ) : (
        <Bar>
          <BigButton
            small
            tone="quiet"
            symbol="message"
            label={t('familyTitle')}
            onPress={() => setOpen(true)}
          />
        </Bar>
      )}
      {typed.trim() !== '' ? (
        <>
          <Hint>{t('familyHelp', { name: childName })}</Hint>
          {say.isError ? <ProblemNotice error={say.error} /> : null}
          <Bar>
            <BigButton small label={t('familySend')} busy={say.isPending} onPress={send} />
          </Bar>
        </>
      ) : null}
    </Stack>
  )
}
