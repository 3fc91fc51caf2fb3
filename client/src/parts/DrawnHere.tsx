import type { DrawingPart } from '@nibquill/contract'
import { drawOn } from '@nibquill/core/ink/changes'
import type { InkDocument } from '@nibquill/core/ink/document'
import { inkToSvg } from '@nibquill/core/ink/svg'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { RuledLines } from '../kit/RuledLines'
import { mediaAddress } from '../media/mediaAddress'
import { Picture } from '../media/Picture'
import { useWaitingInk } from '../outbox/OutboxContext'
import { inkQuery } from './inkQuery'
import { PageTurner } from './PageTurner'
import { PictureStage } from './PictureStage'

type Props = { part: DrawingPart; alt: string; link?: string }

/** As it is with what waits here; what stood there stays until what was drawn since has come. */
function useInk(part: DrawingPart, link?: string): { ink: InkDocument | null; failed: boolean } {
  const waiting = useWaitingInk(part.id)
  const { data, isError } = useQuery({
    ...inkQuery(part.files.ink.mediaId, link),
    placeholderData: keepPreviousData,
  })
  const ink = useMemo(() => (data ? drawOn(data, waiting) : null), [data, waiting])
  return { ink, failed: isError }
}

/** Where a picture on a drawing is read: a tablet's size, whether it has been made yet or not. */
const hrefOf = (link?: string) => (mediaId: string) =>
  mediaAddress({ mediaId, state: 'arrived' }, 2048, link)

function Sheet({
  ink,
  at = 0,
  alt,
  link,
  fit,
}: {
  ink: InkDocument
  at?: number
  alt: string
  link?: string
  fit: 'cover' | 'contain'
}) {
  const svg = useMemo(
    () => inkToSvg(ink.sheets[at] ?? ink.sheets[0]!, { fills: fit, hrefOf: hrefOf(link) }),
    [ink, at, fit, link],
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

/** The first sheet, as large as its place. */
export function DrawnPicture({ part, alt, link, fit }: Props & { fit: 'cover' | 'contain' }) {
  const { ink, failed } = useInk(part, link)
  if (ink) return <Sheet ink={ink} alt={alt} link={link} fit={fit} />
  // What is no ink this Nibquill understands, the school has pictures of.
  return failed ? (
    <Picture file={part.files.ink} alt={alt} size={960} link={link} fit={fit} />
  ) : (
    <RuledLines />
  )
}

/** Every sheet, one at a time, to be looked at closely. */
export function DrawnStage({ part, alt, link }: Props) {
  const { ink, failed } = useInk(part, link)
  const [at, setAt] = useState(0)
  if (!ink && failed)
    return <PictureStage file={part.files.ink} alt={alt} link={link} fullIsPicture={false} />
  if (!ink) return <RuledLines />
  const of = ink.sheets.length
  const here = Math.min(at, of - 1)
  return (
    <View style={{ flex: 1, minHeight: 220 }}>
      <PictureStage file={part.files.ink} alt={alt} link={link} fullIsPicture={false}>
        <Sheet ink={ink} at={here} alt={alt} link={link} fit="contain" />
      </PictureStage>
      <PageTurner what="sheet" at={here} of={of} onTurn={setAt} />
    </View>
  )
}
