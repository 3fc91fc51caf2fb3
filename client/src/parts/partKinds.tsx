import type { Part } from '@nibquill/contract'
import type { PartKind } from '@nibquill/core'
import type { ReactNode } from 'react'
import { PhotoStage } from '../kit/PhotoViewer'
import { Picture } from '../kit/Sheet'
import type { SymbolName } from '../kit/Symbol'
import { colours } from '../kit/theme'
import { strings } from './strings'

/** Everything the screens need to know of one kind of part. A new kind is another entry here. */
type PartLook = {
  /** What it is called when it has no name of its own. */
  word: string
  /** Small, in a list. */
  tile: (part: Part, alt: string) => ReactNode
  /** As large as the place allows, for everyone who may see the piece. */
  full: (part: Part, alt: string, link?: string) => ReactNode
  canTidy: boolean
}

export const PART_LOOKS: Record<PartKind, PartLook> = {
  photo: {
    word: strings.photo,
    tile: (part, alt) => <Picture part={part} alt={alt} size={320} fit="cover" />,
    full: (part, alt, link) => <PhotoStage part={part} alt={alt} link={link} />,
    canTidy: true,
  },
}

/** A part's own name, or what it is and which. */
export const nameOf = (part: Pick<Part, 'kind' | 'name'>, index: number): string =>
  part.name && !isFileName(part.name) ? part.name : `${PART_LOOKS[part.kind].word} ${index + 1}`

/** What a camera calls its files tells nobody anything. */
const isFileName = (name: string): boolean =>
  /\.(jpe?g|png|webp|gif|hei[cf])$/i.test(name) || /^photo \d+$/.test(name)

/** A way to make something, as the make bar offers it; each kind brings its own. */
export type Way = {
  label: string
  symbol: SymbolName
  colour: string
  href: '/make' | '/make?pick=1'
}
export const WAYS: readonly Way[] = [
  { label: strings.photo, symbol: 'camera', colour: colours.aubergine, href: '/make' },
  { label: strings.pick, symbol: 'pictures', colour: colours.verdigris, href: '/make?pick=1' },
]
