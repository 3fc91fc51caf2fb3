import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Progress } from '../kit/Progress'
import { colours } from '../kit/theme'
import { useOutbox, useWaiting } from '../outbox/OutboxContext'
import { t } from './words'
import { Stack } from '../kit/layout'

/** On the desk: what of my work has not reached the school yet, where it is, and how far. */
export function OutboxLine() {
  const outbox = useOutbox()
  const waiting = useWaiting().filter(
    ({ standing }) => standing !== 'refused' && standing !== 'asks',
  )
  const stuck = waiting.some(({ standing }) => standing === 'stuck')
  const files = waiting.flatMap(({ intent, share }) =>
    intent.kind === 'file' ? [{ sizeBytes: intent.sizeBytes, share }] : [],
  )
  const total = files.reduce((sum, { sizeBytes }) => sum + sizeBytes, 0)
  const share = total
    ? files.reduce((sum, file) => sum + file.share * file.sizeBytes, 0) / total
    : 0
  // What is through in a moment is not worth a line that comes and goes.
  if (files.length === 0 && !stuck) return null
  const others = new Set(
    waiting.filter(({ intent }) => intent.kind !== 'file').map(({ intent }) => intent.pieceId),
  )
  const words = [
    ...(files.length > 0
      ? [
          stuck
            ? t('outboxWaits', { count: files.length })
            : t('photosOnTheirWay', { count: files.length, share }),
        ]
      : [t('changesWait', { count: others.size })]),
    waiting.every(({ kept }) => kept) ? t('outboxKept') : t('outboxNotKept'),
  ].join('. ')
  return (
    <Stack role="region" aria-label={t('outbox')} gap="near">
      <Notice
        tone="attention"
        symbol="upload"
        action={<Listen text={`${words}.`} colour={colours.ochreText} />}
      >
        <Stack gap="near">
          <Text variant="bodyLarge">{`${words}.`}</Text>
          {stuck ? (
            <BigButton
              tone="quiet"
              symbol="again"
              label={t('outboxTryAgain')}
              onPress={() => outbox.retry()}
            />
          ) : files.length === 0 ? null : (
            <Progress share={share} label={words} back={colours.sheet} />
          )}
        </Stack>
      </Notice>
    </Stack>
  )
}
