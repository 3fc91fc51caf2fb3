import type { Attachment } from '@nibquill/contract'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Overlay } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Press } from '../kit/Press'
import { play } from '../kit/speech'
import { SaveButton } from './SaveButton'
import { Picture } from './Picture'
import { colours, corners } from '../kit/theme'
import { strings } from './strings'

/** What hangs on a task or a notice: to hear, to look at, to open. */
export function Attachments({ items, label }: { items: readonly Attachment[]; label: string }) {
  const [open, setOpen] = useState<Attachment | null>(null)
  if (items.length === 0) return null
  const pictures = items.filter(({ kind }) => kind === 'picture')
  return (
    <View role="group" aria-label={label} style={{ gap: 10 }}>
      {items
        .filter(({ kind }) => kind === 'sound')
        .map(({ mediaId }) => (
          <Voice key={mediaId} src={`/api/media/${mediaId}/full`} />
        ))}
      {pictures.length > 0 ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
          {pictures.map((picture) => (
            <Press
              key={picture.mediaId}
              label={strings.larger}
              onPress={() => setOpen(picture)}
              style={{ width: 132, height: 100, borderRadius: corners.sheet, overflow: 'hidden' }}
            >
              <Picture file={picture} alt="" size={320} fit="cover" />
            </Press>
          ))}
        </View>
      ) : null}
      {items
        .filter(({ kind }) => kind === 'paper')
        .map(({ mediaId, name }) => (
          <SaveButton
            key={mediaId}
            symbol="file"
            label={name || strings.paper}
            address={`/api/media/${mediaId}/full`}
            name={name || 'paper.pdf'}
          />
        ))}
      {open ? (
        <Overlay
          visible
          title={open.name || strings.picture}
          width={960}
          onClose={() => setOpen(null)}
        >
          <View style={{ height: 480, padding: 16 }}>
            <Picture file={open} alt={open.name || strings.picture} size={960} fit="contain" />
          </View>
          <View style={{ padding: 16, paddingTop: 0 }}>
            <BigButton small tone="quiet" label={strings.close} onPress={() => setOpen(null)} />
          </View>
        </Overlay>
      ) : null}
    </View>
  )
}

/** A recording with one large button. */
export function Voice({ src }: { src: string }) {
  const [audio] = useState(() => new Audio(src))
  const [playing, setPlaying] = useState(false)
  const [failed, setFailed] = useState(false)
  const stop = useRef<() => void>(undefined)
  useEffect(() => () => stop.current?.(), [])
  const toggle = () => {
    if (playing) return stop.current?.()
    setPlaying(true)
    setFailed(false)
    stop.current = play(
      audio,
      () => setPlaying(false),
      () => setFailed(true),
    )
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
      <BigButton
        small
        tone="quiet"
        symbol={playing ? 'pause' : 'play'}
        label={playing ? strings.pause : strings.hear}
        onPress={toggle}
      />
      {failed ? (
        <Text variant="bodySmall" style={{ color: colours.clay }}>
          {strings.cannotPlay}
        </Text>
      ) : null}
    </View>
  )
}
