import type { DrawingPart } from '@nibquill/contract'
import { drawOn } from '@nibquill/core/ink/changes'
import type { InkDocument } from '@nibquill/core/ink/document'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { RuledLines } from '../kit/RuledLines'
import { Picture } from '../media/Picture'
import { useWaitingInk } from '../outbox/OutboxContext'
import { inkQuery } from './inkQuery'
import { PageTurner } from './PageTurner'
import { PictureStage } from './PictureStage'
import { SvgSheet } from './SvgSheet'

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

/** The first sheet, as large as its place. */
export function DrawnPicture({ part, alt, link, fit }: Props & { fit: 'cover' | 'contain' }) {
  const { ink, failed } = useInk(part, link)
  if (ink) return <SvgSheet sheet={ink.sheets[0]!} alt={alt} link={link} fit={fit} />
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
        <SvgSheet sheet={ink.sheets[here]!} alt={alt} link={link} fit="contain" />
      </PictureStage>
      <PageTurner what="sheet" at={here} of={of} onTurn={setAt} />
    </View>
  )
}
