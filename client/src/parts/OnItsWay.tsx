import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { colours } from '../kit/theme'
import { useOutbox } from '../outbox/OutboxContext'
import type { PartStanding } from '../outbox/partStanding'
import { strings as outboxWords } from '../outbox/strings'
import { strings } from './strings'

export const TILE_HEIGHT_PX = 100

/** On a part's tile: how far it is, and what to do when it cannot go on. */
export function OnItsWay({ name, standing }: { name: string; standing: PartStanding }) {
  const outbox = useOutbox()
  const { share, ids, sentence, fileName } = standing
  const stuck = standing.standing === 'stuck'
  if (standing.standing === 'refused')
    return (
      <View style={{ width: 230, gap: 6, paddingTop: 6 }}>
        <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
          {`${fileName || name}: ${sentence ?? ''}`}
        </Text>
        <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
          <BigButton
            small
            tone="quiet"
            label={strings.tryAgain}
            onPress={() => outbox.retry(ids)}
          />
          <BigButton
            small
            tone="quiet"
            label={strings.leaveOut}
            onPress={() => void outbox.forget(ids)}
          />
        </View>
      </View>
    )
  const words = stuck ? strings.waits : share >= 1 ? strings.nearlyThere : strings.onItsWay(share)
  return (
    <>
      {/* That it waits for the network is said once, on the desk and at the head. */}
      {stuck && sentence !== outboxWords.waitsForNetwork ? (
        <Text role="alert" variant="bodySmall" style={{ width: 230, color: colours.ochreText }}>
          {`${fileName || name}: ${sentence ?? ''}`}
        </Text>
      ) : null}
      <View
        style={{
          position: 'absolute',
          left: 1,
          width: 130,
          top: TILE_HEIGHT_PX - 36,
          backgroundColor: 'rgba(255,255,255,0.94)',
          padding: 4,
          paddingLeft: 36,
          pointerEvents: 'none',
        }}
      >
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
    </>
  )
}
