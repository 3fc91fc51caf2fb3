import type { InkSheet } from '@nibquill/core/ink/document'
import { inkToSvg } from '@nibquill/core/ink/svg'
import { useMemo } from 'react'
import { mediaAddress } from '../media/mediaAddress'

/** Where a picture on a drawing is read: a tablet's size, whether it has been made yet or not. */
const hrefOf = (link?: string) => (mediaId: string) =>
  mediaAddress({ mediaId, state: 'arrived' }, 2048, link)

/** A sheet with what is drawn on it, drawn here. */
export function SvgSheet({
  sheet,
  alt,
  link,
  fit,
}: {
  sheet: InkSheet
  alt: string
  link?: string | undefined
  fit: 'cover' | 'contain'
}) {
  const svg = useMemo(
    () => inkToSvg(sheet, { fills: fit, hrefOf: hrefOf(link) }),
    [sheet, fit, link],
  )
  return (
    <div
      role={alt ? 'img' : undefined}
      aria-label={alt || undefined}
      aria-hidden={alt === ''}
      style={FILLS}
      // Made of numbers and our own words alone: nothing a document says stands in it as it is.
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  )
}
const FILLS = { width: '100%', height: '100%', display: 'flex' } as const
