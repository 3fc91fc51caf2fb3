import type { DrawingPart } from '@nibquill/contract'
import type { PictureSize } from '@nibquill/core'
import { laterFrom } from '../kit/later'
import { RuledLines } from '../kit/RuledLines'
import { fileHere } from '../media/filesHere'
import { Picture } from '../media/Picture'
import { useWaitingInk } from '../outbox/OutboxContext'
import { PictureStage } from './PictureStage'

type Props = { part: DrawingPart; alt: string; link?: string }

/** What draws ink is fetched where the school's picture will not do. */
const drawn = laterFrom(() => import('./DrawnHere'), <RuledLines />)
const DrawnPicture = drawn('DrawnPicture')
const DrawnStage = drawn('DrawnStage')

/** Whether the school has no picture of a drawing yet, or not of what was drawn last. */
function useIsDrawnHere({ id, files: { ink } }: DrawingPart): boolean {
  const waiting = useWaitingInk(id)
  return waiting.length > 0 || ink.state === 'arrived' || fileHere(ink.mediaId) !== null
}

/** Its first sheet, in the size that suits. */
export function DrawingPicture({ part, alt, link, size }: Props & { size: PictureSize }) {
  const here = useIsDrawnHere(part)
  return here ? (
    <DrawnPicture part={part} alt={alt} link={link} fit="cover" />
  ) : (
    <Picture file={part.files.ink} alt={alt} size={size} link={link} fit="cover" />
  )
}

/** Its sheets, to be looked at closely. */
export function DrawingStage({ part, alt, link }: Props) {
  const here = useIsDrawnHere(part)
  return here || part.sheets > 1 ? (
    <DrawnStage part={part} alt={alt} link={link} />
  ) : (
    <PictureStage file={part.files.ink} alt={alt} link={link} fullIsPicture={false} />
  )
}
