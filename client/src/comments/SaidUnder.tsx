import type { Comment, Piece } from '@nibquill/contract'
import { inThreads } from '@nibquill/core/comments/inThreads'
import { useQueryClient } from '@tanstack/react-query'
import { router } from 'expo-router'
import { useEffect } from 'react'
import { useSession } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Bar, Heading, Stack } from '../kit/layout'
import { useWaiting } from '../outbox/OutboxContext'
import { useComments } from './commentsQueries'
import { Saying } from './Saying'
import { t } from './words'

/** How what a pupil said stands. */
const noteOf = ({ state, hiddenWhy }: Comment): string | undefined => {
  if (state === 'shown') return undefined
  if (state === 'waiting') return t('states.waiting')
  return hiddenWhy ? t('states.hiddenWhy', { why: hiddenWhy }) : t('states.hidden')
}

/**
 * Under a pupil's piece: what was said about it, and saying something oneself.
 * @param together - It was made with others and approved: each may say what they think of it.
 */
export function SaidUnder({
  piece,
  together,
}: {
  piece: Pick<Piece, 'id' | 'mayChange'>
  together: boolean
}) {
  const said = useComments(piece.id).data
  const { comments, privateWords } = said ?? { comments: [], privateWords: [] }
  const teachers = said?.with ?? []
  const tell = (how: string) => router.push(`/my-pieces/${piece.id}/tell${how}`)
  const onItsWay = useOnItsWay(piece.id)
  const pairs = [...new Set(privateWords.map(({ teacherName }) => teacherName))]
  return (
    <Stack role="region" aria-label={t('said')} gap="near">
      {comments.length + privateWords.length + onItsWay.length > 0 ? (
        <Heading>{t('said')}</Heading>
      ) : null}
      <Stack role="list" gap="apart">
        {inThreads(comments).flatMap(({ comment, answers }) =>
          [comment, ...answers].map((one) => <Saying key={one.id} {...one} note={noteOf(one)} />),
        )}
        {onItsWay
          .filter(({ withId }) => withId === null)
          .map((one) => (
            <MineOnItsWay key={one.commentId} words={one.words} at={one.at} />
          ))}
      </Stack>
      {pairs.map((name) => (
        <Stack key={name} gap="near" role="group" aria-label={t('privately', { name })}>
          <Heading level={3}>{t('privately', { name })}</Heading>
          <Stack role="list" gap="apart">
            {privateWords
              .filter(({ teacherName }) => teacherName === name)
              .map((one) => (
                <Saying key={one.id} {...one} />
              ))}
          </Stack>
        </Stack>
      ))}
      <Stack role="list" gap="apart">
        {onItsWay
          .filter(({ withId }) => withId !== null)
          .map((one) => (
            <MineOnItsWay key={one.commentId} words={one.words} at={one.at} />
          ))}
      </Stack>
      {piece.mayChange ? (
        <Bar wrap>
          {together ? (
            <BigButton
              tone="quiet"
              symbol="quill"
              label={t('whatIThink')}
              onPress={() => tell('?think=1')}
            />
          ) : null}
          <BigButton
            tone="quiet"
            symbol="message"
            label={t('saySomething')}
            onPress={() => tell('')}
          />
          {teachers.length > 0 ? (
            <BigButton
              tone="quiet"
              symbol="lock"
              label={t('sayPrivately')}
              onPress={() => tell('?just=1')}
            />
          ) : null}
        </Bar>
      ) : null}
    </Stack>
  )
}

function MineOnItsWay({ words, at }: { words: string; at: number }) {
  const peg = useSession().data?.person?.peg ?? null
  return (
    <Saying
      by={{ name: '', role: 'pupil', peg, mine: true }}
      saidAt={new Date(at).toISOString()}
      words={words || t('whatWasSaidAloud')}
      voice={null}
      note={t('states.onItsWay')}
    />
  )
}

/** What was said here and has not reached the school; once it has, the school is asked again. */
function useOnItsWay(pieceId: string) {
  const queries = useQueryClient()
  const lines = useWaiting(pieceId).flatMap(({ intent, standing }) =>
    intent.kind === 'comment' && standing !== 'refused' ? [intent] : [],
  )
  const count = lines.length
  useEffect(
    () => () => void queries.invalidateQueries({ queryKey: ['comments', pieceId] }),
    [count, pieceId, queries],
  )
  return lines
}
