import type { PictureSize } from '@nibquill/core'
import { useState } from 'react'
import { Image } from 'react-native'
import { RuledLines } from '../kit/RuledLines'
import { mediaAddress, type Readable } from './mediaAddress'

/** A picture in the size that suits; the full one stands in while sizes are made. */
export function Picture({
  file,
  alt,
  size,
  link,
  fit,
}: {
  file: Readable
  alt: string
  size: PictureSize
  link?: string
  fit: 'cover' | 'contain'
}) {
  const [failed, setFailed] = useState(false)
  if (failed) return <RuledLines />
  return (
    <Image
      source={{ uri: mediaAddress(file, size, link) }}
      accessibilityLabel={alt}
      aria-hidden={alt === ''}
      resizeMode={fit}
      style={{ width: '100%', height: '100%' }}
      onError={() => setFailed(true)}
    />
  )
}
