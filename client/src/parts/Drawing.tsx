import type { DrawingPart } from '@nibquill/contract'
import { drawOn } from '@nibquill/core/ink/changes'
import { inkToSvg } from '@nibquill/core/ink/svg'
import type { PictureSize } from '@nibquill/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { Image } from 'react-native'
import { fileHere } from '../media/filesHere'
import { Picture } from '../media/Picture'
import { useWaitingInk } from '../outbox/OutboxContext'
import { inkQuery } from './inkQuery'
import { PictureStage } from './PictureStage'

type Props = { part: DrawingPart; alt: string; link?: string }

/**
 * A picture drawn on this tablet, while the school has not made its own, or not of what was drawn
 * last.
 * @returns null where the school's picture is the one to show
 */
function useDrawnHere({ id, files: { ink } }: DrawingPart, longestEdgePx: number): string | null {
  const waiting = useWaitingInk(id)
  const here = waiting.length > 0 || ink.state === 'arrived' || fileHere(ink.mediaId) !== null
  // What stood there stays until what was drawn since is here.
  const { data } = useQuery({
    ...inkQuery(ink.mediaId),
    enabled: here,
    placeholderData: keepPreviousData,
  })
  return useMemo(
    () =>
      here && data
        ? pictureOf(inkToSvg(drawOn(data, waiting).sheets[0]!, { longestEdgePx }))
        : null,
    [here, data, waiting, longestEdgePx],
  )
}

const pictureOf = (svg: string): string => `data:image/svg+xml,${encodeURIComponent(svg)}`

/** Its first sheet, in the size that suits. */
export function DrawingPicture({ part, alt, link, size }: Props & { size: PictureSize }) {
  const drawn = useDrawnHere(part, size)
  if (drawn === null || link)
    return <Picture file={part.files.ink} alt={alt} size={size} link={link} fit="cover" />
  return (
    <Image
      source={{ uri: drawn }}
      accessibilityLabel={alt}
      aria-hidden={alt === ''}
      resizeMode="cover"
      style={{ width: '100%', height: '100%' }}
    />
  )
}

/** Its first sheet, to be looked at closely. */
export function DrawingStage({ part, alt, link }: Props) {
  const drawn = useDrawnHere(part, 2048)
  return (
    <PictureStage
      file={part.files.ink}
      alt={alt}
      link={link}
      fullIsPicture={false}
      instead={link ? null : drawn}
    />
  )
}
