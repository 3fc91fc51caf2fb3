import type { FilmPart, PartFile } from '@nibquill/contract'
import { View, type ViewStyle } from 'react-native'
import Svg, { Circle, Path, Rect } from 'react-native-svg'
import { colours, space } from '../kit/theme'
import { MakingReady } from '../media/MakingReady'
import { FilmPlayer } from '../media/Player'
import { Picture } from '../media/Picture'
import { mediaAddress } from '../media/mediaAddress'
import { InWords, inWords } from './InWords'
import type { PartViewProps } from './partKinds'

const BOX = { width: 100, height: 76 }

/** What stands for it: what its makers chose, or what the school did; null before it has. */
const stillOf = ({ film, poster }: FilmPart['files']): PartFile | null =>
  poster ?? (film.state === 'ready' ? film : null)

/** Its address, where it is worth fetching before it is shown. */
export const stillAddress = (files: FilmPart['files'], link?: string): string | undefined => {
  const still = stillOf(files)
  return still ? mediaAddress(still, 960, link) : undefined
}

/** A moment of it, and that it moves. Until the school has a picture: a lens on its stand. */
export function FilmSheet({
  part,
  alt,
  link,
  size,
}: PartViewProps<FilmPart> & { size: 320 | 960 }) {
  const still = stillOf(part.files)
  return (
    <View
      {...(alt ? { role: 'img' as const, 'aria-label': alt } : { 'aria-hidden': true })}
      style={{ flex: 1, backgroundColor: colours.desk }}
    >
      {still ? (
        <Picture file={still} alt="" size={size} fit="cover" {...(link ? { link } : {})} />
      ) : null}
      <View style={OVER}>
        <Svg
          width="100%"
          height="100%"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          preserveAspectRatio="xMidYMid meet"
          aria-hidden
        >
          {still ? null : <Standing />}
          <Path
            d="M42 26 l22 12 l-22 12 z"
            fill={colours.sheet}
            stroke={colours.ink}
            strokeWidth={2}
            strokeLinejoin="round"
            opacity={0.94}
          />
        </Svg>
      </View>
    </View>
  )
}
const OVER: ViewStyle = { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0 }

function Standing() {
  const line = { stroke: colours.ink, strokeWidth: 1.6, strokeLinejoin: 'round' } as const
  return (
    <>
      <Path d="M50 54 l-14 18 M50 54 v18 M50 54 l14 18" fill="none" {...line} />
      <Rect x={28} y={20} width={44} height={36} rx={6} fill={colours.clayTint} {...line} />
      <Circle cx={52} cy={38} r={15} fill={colours.clay} {...line} />
    </>
  )
}

/** To be watched. */
export function FilmStage({ part, alt, link }: PartViewProps<FilmPart>) {
  const { film } = part.files
  return (
    <View style={{ flex: 1, gap: space.near }}>
      <FilmPlayer
        file={film}
        link={link}
        poster={stillAddress(part.files, link)}
        alt={alt}
        words={inWords(part)}
      />
      <MakingReady file={film} {...(link ? { link } : {})} />
      <InWords part={part} />
    </View>
  )
}
