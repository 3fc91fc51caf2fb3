import type { Attachment } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Overlay } from '../kit/Overlay'
import { BigButton } from '../kit/BigButton'
import { Press } from '../kit/Press'
import { MakingReady } from './MakingReady'
import { mediaAddress } from './mediaAddress'
import { FilmPlayer, Player } from './Player'
import { SaveButton } from './SaveButton'
import { Picture } from './Picture'
import { corners, space } from '../kit/theme'
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
        .map((sound) => (
          <Player key={sound.mediaId} file={sound} />
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
        .filter(({ kind }) => kind === 'film')
        .map((film) => (
          <View key={film.mediaId} style={{ height: 300, maxWidth: 480, gap: space.near }}>
            <FilmPlayer
              file={film}
              poster={film.state === 'ready' ? mediaAddress(film, 960) : undefined}
              alt={t('film')}
            />
            <MakingReady file={film} />
          </View>
        ))}
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
