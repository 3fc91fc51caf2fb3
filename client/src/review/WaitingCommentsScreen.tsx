import type { WaitingComment } from '@nibquill/contract'
import { useState } from 'react'
import { router } from 'expo-router'
import { Text } from 'react-native-paper'
import { CommentChoices, commentsWords, Saying, useShowMany, useWaitingComments } from '../comments'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, Stack, Tile } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { sentenceOf } from '../kit/problems'
import { Press } from '../kit/Press'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { t } from './words'

/** What pupils and families said, and waits for a teacher: shown, hidden, answered. */
export function WaitingCommentsScreen() {
  const waiting = useWaitingComments()
  const [showing, setShowing] = useState(false)
  const showMany = useShowMany()
  if (!isHere(waiting)) return <NotYet of={waiting} />
  // What was said aloud is listened to first, and what stands on the list is read.
  const plain = waiting.data.filter(({ held, voice }) => held.length === 0 && voice === null)
  const showAll = async () => {
    setShowing(true)
    try {
      toast(t('commentsShown', { count: await showMany(plain) }))
    } catch (error) {
      toast(sentenceOf(error))
    }
    setShowing(false)
  }
  return (
    <Page max={820}>
      <Head title={t('commentsTitle')} back="/tray" />
      {waiting.data.length === 0 ? (
        <Empty symbol="message" title={t('noComments')}>
          {t('noCommentsHelp')}
        </Empty>
      ) : (
        <Stack role="list" aria-label={t('commentsTitle')}>
          {waiting.data.map((one) => (
            <CommentTile key={one.id} comment={one} />
          ))}
        </Stack>
      )}
      {plain.length > 1 ? (
        <Stack gap="near">
          <Hint>{t('showAllHelp')}</Hint>
          <Bar>
            <BigButton
              small
              tone="quiet"
              symbol="eye"
              label={t('showAll', { count: plain.length })}
              busy={showing}
              onPress={() => void showAll()}
            />
          </Bar>
        </Stack>
      ) : null}
    </Page>
  )
}

function CommentTile({ comment }: { comment: WaitingComment }) {
  const { pieceId, pupil, title, className, held } = comment
  return (
    <Tile role="listitem" gap="near">
      <Press
        role="link"
        onPress={() => router.push(`/tray/${pieceId}`)}
        style={{ minHeight: targets.adult, justifyContent: 'center' }}
      >
        <Text variant="labelMedium" style={{ color: colours.sea }}>
          {`${pupil.firstName} ${pupil.lastName}, ${title} · ${className}`}
        </Text>
      </Press>
      <Saying
        role="group"
        {...comment}
        note={
          [
            held.length > 0 ? t('held', { words: held.join(', ') }) : '',
            comment.thoughts
              ? commentsWords('teacherStates.thoughtsWait', { name: comment.by.name })
              : '',
          ]
            .filter(Boolean)
            .join(' · ') || undefined
        }
      >
        <CommentChoices comment={comment} pieceId={pieceId} />
      </Saying>
    </Tile>
  )
}
