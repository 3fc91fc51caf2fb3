import type { Notice } from '@nibquill/contract'
import { useContext } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { ForPupil } from '../kit/forPupil'
import { Bar, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Attachments } from '../media/Attachments'
import { useNotices, useReadNotice } from './noticesQueries'
import { t } from './words'

/**
 * Notices for whoever they are meant for: those not seen yet, each until it is seen; for parents
 * the seen ones as well.
 */
export function NoticesFor({
  title,
  keepSeen,
  classId,
}: {
  title: string
  keepSeen: boolean
  /** Of this class only; null is of none. */
  classId?: string | null
}) {
  const notices = useNotices()
  const shown = (notices.data ?? [])
    .filter(({ seen }) => keepSeen || !seen)
    .filter((notice) => classId === undefined || notice.classId === classId)
  if (shown.length === 0) return null
  return (
    <Box title={title}>
      {shown.map((notice) => (
        <OneNotice key={notice.id} notice={notice} small={keepSeen} />
      ))}
    </Box>
  )
}

function OneNotice({ notice, small }: { notice: Notice; small: boolean }) {
  const { whenWasIt } = useWhen()
  const read = useReadNotice()
  const { tablet } = useWidth()
  const forPupil = useContext(ForPupil)
  const spoken = notice.media.some(({ kind }) => kind === 'sound')
  const done = notice.seen ? null : (
    <BigButton
      small={small}
      tone="quiet"
      symbol="check"
      label={t('seen')}
      busy={read.isPending}
      onPress={() => read.mutate(notice.id)}
    />
  )
  // A line of words has room for it on a tablet, where it has the whole width; a notice with more to it has been seen at its end.
  const beside = tablet && !forPupil && notice.words !== '' && notice.media.length === 0
  return (
    <Stack role="article" gap="near">
      <Hint>{[notice.from, whenWasIt(notice.createdAt)].filter(Boolean).join(' · ')}</Hint>
      {notice.words ? (
        <Bar>
          <Text variant={notice.seen ? 'bodyLarge' : 'titleMedium'} style={{ flex: 1 }}>
            {notice.words}
          </Text>
          {forPupil && !spoken ? <Listen text={notice.words} /> : null}
          {beside ? done : null}
        </Bar>
      ) : null}
      <Attachments items={notice.media} label={t('attached')} />
      {beside ? null : done}
    </Stack>
  )
}
