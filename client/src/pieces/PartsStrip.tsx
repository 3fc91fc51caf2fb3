import type { Part } from '@nibquill/contract'
import { Image, View } from 'react-native'
import { Text } from 'react-native-paper'
import { strings as mediaWords } from '../media/strings'
import type { Sending } from '../media/uploader'
import { BigButton } from '../kit/BigButton'
import { RoundButton } from '../kit/RoundButton'
import { Picture } from '../kit/Sheet'
import { toast } from '../kit/Toast'
import { colours, corners } from '../kit/theme'
import { useRemovePart } from './piecesQueries'
import { strings } from './strings'
import { uploader, useSendings } from './uploads'

const WIDTH = 132

/** What is in a piece, and what is still on its way to it. */
export function PartsStrip({ pieceId, parts, open = true }: { pieceId: string; parts: Part[]; open?: boolean }) {
  const sendings = useSendings(pieceId).filter(({ partId }) => !parts.some(({ id }) => id === partId))
  const remove = useRemovePart(pieceId)
  const takeOut = (part: Part) =>
    remove.mutate(
      { partId: part.id, restore: false },
      { onSuccess: () => toast(strings.removed, () => remove.mutate({ partId: part.id, restore: true }), strings.undo) },
    )
  return (
    <View role="list" aria-label={strings.photosSoFar} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
      {parts.map((part, i) => (
        <View
          key={part.id}
          role="listitem"
          style={{
            width: WIDTH,
            height: WIDTH * 0.76,
            borderRadius: corners.sheet,
            overflow: 'hidden',
            backgroundColor: colours.desk,
            borderWidth: 1,
            borderColor: colours.rule,
          }}
        >
          <Picture part={part} alt={`${strings.photo} ${i + 1}`} size={320} fit="cover" />
          {open ? (
            <View style={{ position: 'absolute', top: 4, right: 4 }}>
              <RoundButton
                label={strings.remove(`${strings.photo} ${i + 1}`)}
                symbol="close"
                size={44}
                back="rgba(255,255,255,0.92)"
                onPress={() => takeOut(part)}
              />
            </View>
          ) : null}
        </View>
      ))}
      {sendings.map((sending) => (
        <SendingTile key={sending.partId} sending={sending} />
      ))}
    </View>
  )
}

function SendingTile({ sending }: { sending: Sending }) {
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
    <View role="listitem" style={{ width: trouble ? 230 : WIDTH, gap: 6 }}>
      <View
        style={{
          width: WIDTH,
          height: WIDTH * 0.76,
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
            style={{ position: 'absolute', left: 0, right: 0, bottom: 0, backgroundColor: 'rgba(255,255,255,0.94)', padding: 4 }}
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
              <View style={{ width: `${share * 100}%`, height: 6, borderRadius: 3, backgroundColor: colours.aubergine }} />
            </View>
          </View>
        )}
      </View>
      {trouble ? (
        <>
          <Text role="alert" variant="bodySmall" style={{ color: colours.clay }}>
            {sending.name}: {sending.sentence}
          </Text>
          <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
            {sending.state === 'stuck' ? (
              <BigButton small label={mediaWords.tryAgain} tone="quiet" onPress={() => uploader.retryStuck()} />
            ) : null}
            <BigButton small label={mediaWords.forget} tone="quiet" onPress={() => uploader.forget(sending.partId)} />
          </View>
        </>
      ) : null}
    </View>
  )
}
