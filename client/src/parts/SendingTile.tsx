import { Image, View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Press } from '../kit/Press'
import { colours, corners } from '../kit/theme'
import { strings as mediaWords } from '../media/strings'
import type { Sending } from '../media/uploader'
import { uploader } from '../pieces/uploads'
import { strings } from './strings'

export const TILE_PX = 132

/** A part on its way: where it is, and what to do when it cannot go on. */
export function SendingTile({ sending, onOpen }: { sending: Sending; onOpen: () => void }) {
  const share = sending.sizeBytes ? sending.sentBytes / sending.sizeBytes : 0
  const trouble = sending.state === 'stuck' || sending.state === 'refused'
  const words = {
    keeping: mediaWords.keeping,
    waiting: mediaWords.waiting,
    sending: mediaWords.sending(share),
    checking: mediaWords.checking,
    stuck: '',
    refused: '',
  }[sending.state]
  return (
    <View role="listitem" style={{ width: trouble ? 230 : TILE_PX, gap: 6 }}>
      <Press
        label={strings.open(sending.name)}
        onPress={onOpen}
        style={{
          width: TILE_PX,
          height: TILE_PX * 0.76,
          borderRadius: corners.sheet,
          overflow: 'hidden',
          backgroundColor: colours.desk,
        }}
      >
        <Image
          source={{ uri: sending.preview }}
          accessibilityLabel={sending.name}
          resizeMode="cover"
          style={{ width: '100%', height: '100%', opacity: 0.75 }}
        />
        {trouble ? null : (
          <View
            style={{
              position: 'absolute',
              left: 0,
              right: 0,
              bottom: 0,
              backgroundColor: 'rgba(255,255,255,0.94)',
              padding: 4,
            }}
          >
            <Text variant="bodySmall" style={{ textAlign: 'center' }}>
              {words}
            </Text>
            <View
              role="progressbar"
              aria-label={sending.name}
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
        )}
      </Press>
      {trouble ? (
        <>
          <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
            {sending.name}: {sending.sentence}
          </Text>
          <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
            {sending.kept || sending.state === 'stuck' ? (
              <BigButton
                small
                label={mediaWords.tryAgain}
                tone="quiet"
                onPress={() =>
                  sending.state === 'stuck'
                    ? uploader.retryStuck()
                    : uploader.tryAgain(sending.partId)
                }
              />
            ) : null}
            <BigButton
              small
              label={mediaWords.forget}
              tone="quiet"
              onPress={() => uploader.forget(sending.partId)}
            />
          </View>
        </>
      ) : null}
    </View>
  )
}
