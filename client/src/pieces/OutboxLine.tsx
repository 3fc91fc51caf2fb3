import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Progress } from '../kit/Progress'
import { colours } from '../kit/theme'
import { strings } from './strings'
import { drafts, uploader, useDrafts, useSendings } from './uploads'

/** On the desk: what of my work has not reached the school yet, where it is, and how far. */
export function OutboxLine() {
  const sendings = useSendings().filter(({ state }) => state !== 'refused')
  const waiting = [...useDrafts().values()].filter(
    ({ state }) => state === 'stuck' || state === 'sending' || state === 'waiting',
  )
  if (sendings.length + waiting.length === 0) return null
  const total = sendings.reduce((sum, { sizeBytes }) => sum + sizeBytes, 0)
  const share = total ? sendings.reduce((sum, { sentBytes }) => sum + sentBytes, 0) / total : 0
  const stuck = [...sendings, ...waiting].every(({ state }) => state === 'stuck')
  const kept = [...sendings, ...waiting].every((one) => one.kept)
  const words = [
    ...(sendings.length > 0
      ? [
          stuck
            ? strings.outboxWaits(sendings.length)
            : strings.photosOnTheirWay(sendings.length, share),
        ]
      : []),
    ...(waiting.length > 0 && (stuck || sendings.length === 0)
      ? [strings.wordsOnTheirWay(waiting.length)]
      : []),
    kept ? strings.outboxKept : strings.outboxNotKept,
  ].join('. ')
  return (
    <View role="region" aria-label={strings.outbox} style={{ gap: 8 }}>
      <Notice
        tone="attention"
        symbol="upload"
        action={<Listen text={`${words}.`} colour={colours.ochreText} />}
      >
        <View style={{ gap: 8 }}>
          <Text variant="bodyLarge">{`${words}.`}</Text>
          {stuck ? (
            <BigButton
              tone="quiet"
              symbol="again"
              label={strings.outboxTryAgain}
              onPress={() => (uploader.retryStuck(), drafts.retry())}
            />
          ) : sendings.length === 0 ? null : (
            <Progress share={share} label={words} back={colours.sheet} />
          )}
        </View>
      </Notice>
    </View>
  )
}
