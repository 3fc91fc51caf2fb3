import type { PieceLine } from '@nibquill/contract'
import type { PieceState } from '@nibquill/core'
import { StyleSheet, View } from 'react-native'
import Svg, { Path, Rect } from 'react-native-svg'
import { RuledLines } from '../kit/RuledLines'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, corners, shadow, stateColours } from '../kit/theme'
import { PartView } from './PartView'

const FOLD_SYMBOL: Record<PieceState, SymbolName | null> = {
  draft: null,
  submitted: 'layers',
  returned: 'again',
  approved: 'in-folder',
}

/** A piece: a sheet with its upper right corner folded; the fold carries the state. */
export function Sheet({
  piece,
  width,
  link,
}: {
  piece: Pick<PieceLine, 'cover' | 'state' | 'title'>
  width: number
  link?: string
}) {
  const height = width * 0.76
  const fold = Math.max(26, width * 0.21)
  return (
    <View style={[styles.sheet, { width, height, padding: Math.max(4, width * 0.025) }]}>
      <View style={styles.picture}>
        {piece.cover ? (
          <PartView view={width > 330 ? 'cover' : 'tile'} part={piece.cover} alt="" link={link} />
        ) : (
          <RuledLines />
        )}
      </View>
      {piece.state === 'draft' ? (
        <Svg width={width} height={height} style={StyleSheet.absoluteFill} aria-hidden>
          <Rect
            x={2}
            y={2}
            width={width - 4}
            height={height - 4}
            rx={corners.sheet - 1}
            fill="none"
            stroke={colours.inkSoft}
            strokeWidth={2}
            strokeDasharray="6 5"
          />
        </Svg>
      ) : null}
      <Fold state={piece.state} size={fold} />
    </View>
  )
}

function Fold({ state, size }: { state: PieceState; size: number }) {
  const symbol = FOLD_SYMBOL[state]
  return (
    <View style={{ position: 'absolute', top: -1, right: -1, width: size, height: size }}>
      <Svg width={size} height={size} viewBox="0 0 40 40" aria-hidden>
        <Path d="M0 0 H40 V40 z" fill={colours.paper} />
        <Path
          d="M0 0 L40 40 H8 Q0 40 0 32 z"
          fill={state === 'draft' ? colours.desk : stateColours[state].mark}
        />
      </Svg>
      {symbol ? (
        <View style={{ position: 'absolute', left: size * 0.08, bottom: size * 0.08 }}>
          <DrawnSymbol name={symbol} size={size * 0.46} colour={colours.sheet} />
        </View>
      ) : null}
    </View>
  )
}

const styles = StyleSheet.create({
  sheet: { backgroundColor: colours.sheet, borderRadius: corners.sheet, ...shadow },
  picture: { flex: 1, overflow: 'hidden', borderRadius: 2, backgroundColor: colours.desk },
})
