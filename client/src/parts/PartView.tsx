import type { Part } from '@nibquill/contract'
import { lookOf, type PartViewProps } from './partKinds'

/** `tile`: small, in a list; `cover`: for the whole piece; `large`: as large as the place allows. */
export type View = 'tile' | 'cover' | 'large'

/**
 * A part, whatever its kind, for everyone who may see the piece: the one place that asks what it
 * is.
 * @param alt - What is said of it; empty where its name stands beside it.
 * @param link - Token of a page link, for those who came by one.
 */
export function PartView({ view, ...props }: PartViewProps<Part> & { view: View }) {
  const Look = lookOf(props.part)[view]
  return <Look {...props} />
}
