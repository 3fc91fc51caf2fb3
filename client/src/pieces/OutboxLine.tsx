import { View } from 'react-native'
import { ProgressBar, Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Listen, Notice } from '../kit/Notice'
import { colours } from '../kit/theme'
import { strings } from './strings'
import { uploader, useSendings } from './uploads'

/** On the desk: what of my work has not reached the school yet, where it is, and how far. */
export function OutboxLine() {
  const sendings = useSendings().filter(({ state }) => state !== 'refused')
  if (sendings.length === 0) return null
  const total = sendings.reduce((sum, { sizeBytes }) => sum + sizeBytes, 0)
  const share = total ? sendings.reduce((sum, { sentBytes }) => sum + sentBytes, 0) / total : 0
  const stuck = sendings.every(({ state }) => state === 'stuck')
  const kept = sendings.every((sending) => sending.kept)
  const words = [
    stuck ? strings.outboxWaits(sendings.length) : strings.photosOnTheirWay(sendings.length, share),
    kept ? strings.outboxKept : strings.outboxNotKept,
  ].join('. ')
  return (
    <View role="region" aria-label={strings.outbox} style={{ gap: 8 }}>
      <Notice tone="attention" symbol="upload" action={<Listen text={`${words}.`} colour={colours.ochreText} />}>
        <View style={{ gap: 8 }}>
          <Text variant="bodyLarge">{`${words}.`}</Text>
          {stuck ? (
            <BigButton tone="quiet" symbol="again" label={strings.outboxTryAgain} onPress={() => uploader.retryStuck()} />
          ) : (
            <ProgressBar
              progress={share}
              color={colours.aubergine}
              style={{ height: 8, borderRadius: 4, backgroundColor: colours.sheet }}
            />
          )}
        </View>
      </Notice>
    </View>
  )
}
