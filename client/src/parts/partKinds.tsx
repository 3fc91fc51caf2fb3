import type {
  DrawingPart,
  FilmPart,
  PagePart,
  Part,
  PhotoPart,
  TalkPart,
  WritingPart,
} from '@nibquill/contract'
import { pageForm, type PartKind } from '@nibquill/core'
import type { ComponentType } from 'react'
import type { SymbolName } from '../kit/DrawnSymbol'
import { Picture } from '../media/Picture'
import { mediaAddress } from '../media/mediaAddress'
import { DrawingPicture, DrawingStage } from './Drawing'
import { FilmSheet, FilmStage, stillAddress } from './Film'
import { LinkSheet, LinkStage } from './Link'
import { PageSheet, PageStage } from './Page'
import { PictureStage } from './PictureStage'
import { TalkSheet, TalkStage } from './Talk'
import { WritingPage, WritingSheet } from './WritingPage'
import { VoiceSheet, VoiceStage } from './Voice'
import { t } from './words'

export type PartViewProps<P extends Part> = { part: P; alt: string; link?: string }

/** Everything the screens need to know of one kind of part. A new kind is another entry here. */
type PartLook<P extends Part> = {
  /** What it is called when it has no name of its own. */
  word: string
  symbol: SymbolName
  tile: ComponentType<PartViewProps<P>>
  cover: ComponentType<PartViewProps<P>>
  large: ComponentType<PartViewProps<P>>
  /** Whether what a camera saw can be straightened and brightened. */
  canTidy: boolean
  /** Where one goes on with it, below the address of the part; null where that is its own page. */
  goOn: 'write' | 'draw' | null
  /** A picture of it worth fetching before it is shown. */
  ahead: (part: P) => string | null
}

const PART_LOOKS: { [K in PartKind]: PartLook<Extract<Part, { kind: K }>> } = {
  photo: {
    word: t('photo'),
    symbol: 'camera',
    tile: ({ part, alt, link }: PartViewProps<PhotoPart>) => (
      <Picture file={part.files.picture} alt={alt} size={320} link={link} fit="cover" />
    ),
    cover: ({ part, alt, link }: PartViewProps<PhotoPart>) => (
      <Picture file={part.files.picture} alt={alt} size={960} link={link} fit="cover" />
    ),
    large: ({ part, alt, link }: PartViewProps<PhotoPart>) => (
      <PictureStage file={part.files.picture} alt={alt} link={link} fullIsPicture />
    ),
    canTidy: true,
    goOn: null,
    ahead: ({ files }) => mediaAddress(files.picture, 2048),
  },
  drawing: {
    word: t('drawing'),
    symbol: 'quill',
    tile: ({ part, alt, link }: PartViewProps<DrawingPart>) => (
      <DrawingPicture part={part} alt={alt} size={320} link={link} />
    ),
    cover: ({ part, alt, link }: PartViewProps<DrawingPart>) => (
      <DrawingPicture part={part} alt={alt} size={960} link={link} />
    ),
    large: DrawingStage,
    canTidy: false,
    goOn: 'draw',
    ahead: ({ files }) => mediaAddress(files.ink, 2048),
  },
  writing: {
    word: t('writing'),
    symbol: 'pencil',
    tile: ({ part }: PartViewProps<WritingPart>) => <WritingSheet text={part.text} size="small" />,
    cover: ({ part }: PartViewProps<WritingPart>) => <WritingSheet text={part.text} size="large" />,
    large: WritingPage,
    canTidy: false,
    goOn: 'write',
    ahead: () => null,
  },
  voice: {
    word: t('voice'),
    symbol: 'microphone',
    tile: VoiceSheet,
    cover: VoiceSheet,
    large: VoiceStage,
    canTidy: false,
    goOn: null,
    ahead: () => null,
  },
  talk: {
    word: t('talk'),
    symbol: 'listen',
    tile: (props: PartViewProps<TalkPart>) => <TalkSheet {...props} size={320} />,
    cover: (props: PartViewProps<TalkPart>) => <TalkSheet {...props} size={960} />,
    large: TalkStage,
    canTidy: false,
    goOn: null,
    ahead: () => null,
  },
  film: {
    word: t('film'),
    symbol: 'film-camera',
    tile: (props: PartViewProps<FilmPart>) => <FilmSheet {...props} size={320} />,
    cover: (props: PartViewProps<FilmPart>) => <FilmSheet {...props} size={960} />,
    large: FilmStage,
    canTidy: false,
    goOn: null,
    ahead: ({ files }) => stillAddress(files) ?? null,
  },
  page: {
    word: t('page'),
    symbol: 'file',
    tile: (props: PartViewProps<PagePart>) => <PageSheet {...props} size={320} />,
    cover: (props: PartViewProps<PagePart>) => <PageSheet {...props} size={960} />,
    large: PageStage,
    canTidy: false,
    goOn: null,
    ahead: ({ files: { paper } }) =>
      paper.state === 'ready' ? mediaAddress(paper, pageForm(1)) : null,
  },
  link: {
    word: t('link'),
    symbol: 'link',
    tile: LinkSheet,
    cover: LinkSheet,
    large: LinkStage,
    canTidy: false,
    goOn: null,
    ahead: () => null,
  },
}

export const lookOf = ({ kind }: { kind: PartKind }): PartLook<Part> =>
  PART_LOOKS[kind] as unknown as PartLook<Part>

/** A part's own name, or what it is and which. */
export const nameOf = (part: Pick<Part, 'kind' | 'name'>, index: number): string =>
  part.name && !isFileName(part.name) ? part.name : `${lookOf(part).word} ${index + 1}`

/** What a camera calls its files tells nobody anything. */
const isFileName = (name: string): boolean =>
  /\.(jpe?g|png|webp|gif|hei[cf]|webm|ogg|m4a|mp4|mov)$/i.test(name) || /^photo \d+$/.test(name)
