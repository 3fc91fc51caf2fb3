import { sizeOfPlaced } from '@nibquill/core/ink/arrange'
import { emptySheet, type PlacedThing } from '@nibquill/core/ink/document'
import { inkToSvg } from '@nibquill/core/ink/svg'
import { useMemo } from 'react'
import { Image } from 'react-native'
import { mediaAddress } from '../media/mediaAddress'

/** Around a thing, so that no line of it is cut off. */
const ROOM = 200

/** A thing alone, as it lies on a sheet. @param px - Of its longest edge. */
export function ThingPicture({ thing, px }: { thing: PlacedThing; px: number }) {
  const { width, height } = sizeOfPlaced(thing)
  const uri = useMemo(() => {
    if (thing.kind === 'picture')
      return mediaAddress({ mediaId: thing.mediaId, state: 'arrived' }, 320)
    const [wide, high] = [width + ROOM, height + ROOM]
    const alone = { ...thing, at: { x: wide / 2, y: high / 2 }, turn: 0 }
    const things = [alone.kind === 'label' ? { ...alone, pointer: null } : alone]
    const sheet = { ...emptySheet('s'), width: wide, height: high, things }
    return `data:image/svg+xml,${encodeURIComponent(inkToSvg(sheet, { longestEdgePx: px * 2 }))}`
  }, [thing, width, height, px])
  const scale = px / Math.max(width, height)
  return <Image source={{ uri }} style={{ width: width * scale, height: height * scale }} />
}
