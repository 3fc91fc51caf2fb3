import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { colours, space } from '../kit/theme'
import { useOutbox } from '../outbox/OutboxContext'
import type { PartStanding } from '../outbox/partStanding'
import { t as outboxWords } from '../outbox/words'
import { t } from './words'

type Props = { name: string; standing: PartStanding }

/** Along the foot of a part's tile: how far it is on its way. */
export function OnItsWay({ name, standing: { standing, share } }: Props) {
  if (standing === 'refused') return null
  const words =
    standing === 'stuck' ? t('waits') : share >= 1 ? t('nearlyThere') : t('onItsWay', { share })
  return (
    <View style={ALONG_THE_FOOT}>
      <Text variant="bodySmall" numberOfLines={1}>
        {words}
      </Text>
      <View
        role="progressbar"
        aria-label={name}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(share * 100)}
        style={{ height: 6, borderRadius: 3, backgroundColor: colours.rule }}
      >
        <View
          style={{
            width: `${share * 100}%`,
            height: 6,
            borderRadius: 3,
            backgroundColor: colours.aubergine,
          }}
        />
      </View>
    </View>
  )
}

const ALONG_THE_FOOT = {
  position: 'absolute',
  left: 1,
  right: 1,
  bottom: 1,
  backgroundColor: 'rgba(255,255,255,0.94)',
  paddingVertical: space.tight,
  paddingHorizontal: space.near,
  pointerEvents: 'none',
} as const

/** Under a part's tile: why it cannot go on, and what to do about it. */
export function TroubleOnTheWay({ name, standing }: Props) {
  const outbox = useOutbox()
  const { ids, sentence, fileName } = standing
  const about = `${fileName || name}: ${sentence ?? ''}`
  if (standing.standing === 'refused')
    return (
      <Stack gap="close" style={{ paddingTop: space.close }}>
        <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
          {about}
        </Text>
        <Bar wrap align="stretch">
          <BigButton small tone="quiet" label={t('tryAgain')} onPress={() => outbox.retry(ids)} />
          <BigButton
            small
            tone="quiet"
            label={t('leaveOut')}
            onPress={() => void outbox.forget(ids)}
          />
        </Bar>
      </Stack>
    )
  // That it waits for the network is said once, on the desk and at the head.
  if (standing.standing !== 'stuck' || sentence === outboxWords('waitsForNetwork')) return null
  return (
    <Text role="alert" variant="bodySmall" style={{ color: colours.ochreText }}>
      {about}
    </Text>
  )
}
