import type { Attachment } from '@nibquill/contract'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Overlay } from '../kit/Overlay'
import { BigButton } from '../kit/BigButton'
import { Press } from '../kit/Press'
import { play } from '../kit/speech'
import { SaveButton } from './SaveButton'
import { Picture } from './Picture'
import { colours, corners, space } from '../kit/theme'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

/** What hangs on a task or a notice: to hear, to look at, to open. */
export function Attachments({ items, label }: { items: readonly Attachment[]; label: string }) {
  const [open, setOpen] = useState<Attachment | null>(null)
  if (items.length === 0) return null
  const pictures = items.filter(({ kind }) => kind === 'picture')
  return (
    <Stack role="group" aria-label={label} gap="near">
      {items
        .filter(({ kind }) => kind === 'sound')
        .map(({ mediaId }) => (
          <Voice key={mediaId} src={`/api/media/${mediaId}/full`} />
        ))}
      {pictures.length > 0 ? (
        <Bar wrap align="stretch">
          {pictures.map((picture) => (
            <Press
              key={picture.mediaId}
              label={t('larger')}
              onPress={() => setOpen(picture)}
              style={{ width: 132, height: 100, borderRadius: corners.sheet, overflow: 'hidden' }}
            >
              <Picture file={picture} alt="" size={320} fit="cover" />
            </Press>
          ))}
        </Bar>
      ) : null}
      {items
        .filter(({ kind }) => kind === 'paper')
        .map(({ mediaId, name }) => (
          <SaveButton
            key={mediaId}
            symbol="file"
            label={name || t('paper')}
            address={`/api/media/${mediaId}/full`}
            name={name || 'paper.pdf'}
          />
        ))}
      {open ? (
        <Overlay
          visible
          title={open.name || t('picture')}
          width={960}
          onClose={() => setOpen(null)}
        >
          <View style={{ height: 480, padding: space.clear }}>
            <Picture file={open} alt={open.name || t('picture')} size={960} fit="contain" />
          </View>
          <View style={{ padding: space.clear, paddingTop: 0 }}>
            <BigButton small tone="quiet" label={t('close')} onPress={() => setOpen(null)} />
          </View>
        </Overlay>
      ) : null}
    </Stack>
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
    <Bar>
      <BigButton
        small
        tone="quiet"
        symbol={playing ? 'pause' : 'play'}
        label={playing ? t('pause') : t('hear')}
        onPress={toggle}
      />
      {failed ? (
        <Text variant="bodySmall" style={{ color: colours.clay }}>
          {t('cannotPlay')}
        </Text>
      ) : null}
    </Bar>
  )
}
