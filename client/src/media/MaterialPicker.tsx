import type { MediaKind } from '@nibquill/core'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { pickFiles } from '../device/pickFiles'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { Progress } from '../kit/Progress'
import { Picture } from './Picture'
import { RoundButton } from '../kit/RoundButton'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, corners, targets } from '../kit/theme'
import { useMaterials } from './materials'

import { VoiceRecorder } from './VoiceRecorder'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

type Hung<R extends string> = { mediaId: string; role: R; name: string; kind: MediaKind }
const KIND_SYMBOL: Record<Exclude<MediaKind, 'picture'>, SymbolName> = {
  sound: 'microphone',
  film: 'play',
  paper: 'file',
  ink: 'pencil',
}
type Kind<R extends string> = { role: R; label: string; accept?: string; voice?: boolean }

/** Files and recordings to hang on a task or a notice: sent at once, taken out again with a tap. */
export function MaterialPicker<R extends string>({
  media,
  onChange,
  kinds,
}: {
  media: Hung<R>[]
  onChange: (media: Hung<R>[]) => void
  kinds: readonly Kind<R>[]
}) {
  return (
    <>
      {kinds.map((kind) => (
        <KindPicker key={kind.role} kind={kind} media={media} onChange={onChange} />
      ))}
    </>
  )
}

function KindPicker<R extends string>({
  kind,
  media,
  onChange,
}: {
  kind: Kind<R>
  media: Hung<R>[]
  onChange: (media: Hung<R>[]) => void
}) {
  const { sendings, send, tryAgain, forget } = useMaterials((material) =>
    onChange([...media, { ...material, role: kind.role }]),
  )
  const own = media.filter(({ role }) => role === kind.role)
  const pick = async () => send(await pickFiles(kind.accept ?? '', { several: true }))
  return (
    <Stack role="group" aria-label={kind.label} gap="near">
      {kind.voice ? null : (
        <Text variant="labelMedium" style={{ color: colours.inkSoft }}>
          {kind.label}
        </Text>
      )}
      {own.map(({ mediaId, name, kind: is }) => (
        <Bar key={mediaId}>
          {is !== 'picture' ? (
            <DrawnSymbol name={KIND_SYMBOL[is]} size={26} colour={colours.inkSoft} />
          ) : (
            <View
              style={{ width: 60, height: 46, borderRadius: corners.sheet, overflow: 'hidden' }}
            >
              <Picture file={{ mediaId, state: 'arrived' }} alt="" size={320} fit="cover" />
            </View>
          )}
          <Text variant="bodyMedium" style={{ flex: 1 }}>
            {name}
          </Text>
          <RoundButton
            label={t('takeOut', { name })}
            symbol="bin"
            size={targets.adult}
            colour={colours.clay}
            onPress={() => onChange(media.filter((one) => one.mediaId !== mediaId))}
          />
        </Bar>
      ))}
      {sendings.map(({ mediaId, name, share, sentence }) => (
        <Stack key={mediaId} gap="tight">
          <Hint tone={sentence ? 'fault' : 'soft'}>
            {sentence ? `${name}: ${sentence}` : t('onItsWay', { name, share })}
          </Hint>
          {sentence ? (
            <Bar wrap>
              <BigButton
                small
                tone="quiet"
                label={t('tryAgain')}
                onPress={() => void tryAgain(mediaId)}
              />
              <BigButton small tone="quiet" label={t('forget')} onPress={() => forget(mediaId)} />
            </Bar>
          ) : (
            <Progress share={share} label={t('onItsWay', { name, share })} />
          )}
        </Stack>
      ))}
      {kind.voice ? (
        <VoiceRecorder label={kind.label} onDone={({ file }) => void send([file])} />
      ) : (
        <Bar wrap>
          <BigButton
            small
            tone="quiet"
            symbol="upload"
            label={t('addFile')}
            onPress={() => void pick()}
          />
        </Bar>
      )}
    </Stack>
  )
}
