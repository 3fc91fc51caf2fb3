import type { PieceLine, PupilDetail } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { ScrollView, View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar, useWidth } from '../kit/layout'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { t as kitWords } from '../kit/words'
import { piecesWords } from '../pieces'
import { Desks, useKeys } from '../review'
import { usePupil } from '../school'
import { inFrozenOrder } from './frozenOrder'
import { inShownOrder } from './NowAndYear'
import { useNeighbours } from './PupilHead'
import { usePupilView } from './PupilScreen'
import { usePupilDesk } from './pupilsQueries'
import { t } from './words'

/** A piece opened from its pupil's page: Next is this pupil's next, and the way back is to the page. */
export function PupilPieceScreen() {
  const { id, pieceId } = useLocalSearchParams<{ id: string; pieceId: string }>()
  const { wide } = useWidth()
  const { by } = usePupilView()
  const pupil = usePupil(id)
  const desk = usePupilDesk(id)
  const { toAfter, toBefore } = useNeighbours(id, pupil.data?.classId)
  useKeys({ n: toAfter, b: toBefore }, true)
  if (!isHere(pupil) || !isHere(desk)) return <NotYet of={[pupil, desk]} />
  const pieces = inFrozenOrder(`${id} ${by}`, inShownOrder(desk.data, by))
  const at = pieces.findIndex((piece) => piece.id === pieceId)
  const params = by === 'folder' ? {} : { by }
  const go = (to: string | null) =>
    to
      ? router.replace({
          pathname: '/class/[id]/[pieceId]',
          params: { id, pieceId: to, ...params },
        })
      : router.replace({ pathname: '/class/[id]', params: { id, ...params } })
  const deskOf = (i: number, id: string) => {
    const nextId = (i < 0 ? null : pieces[i + 1]?.id) ?? null
    return {
      ...{ pieceId: id, onGo: go, onDecided: () => go(nextId) },
      place: { number: i + 1, of: pieces.length, nextId, previousId: pieces[i - 1]?.id ?? null },
      back: t('toPupil', { name: pupil.data.firstName }),
    }
  }
  const shown = deskOf(at, pieceId)
  const { nextId } = shown.place
  const judged = <Desks shown={shown} next={nextId ? deskOf(at + 1, nextId) : null} />
  if (!wide) return judged
  return (
    <Bar align="stretch" gap="none" style={{ flex: 1 }}>
      <Beside pupil={pupil.data} pieces={pieces} chosenId={pieceId} onGo={go} />
      <View style={{ flex: 1 }}>{judged}</View>
    </Bar>
  )
}

/** The pupil's pieces, in the order of their page. */
function Beside({
  pupil,
  pieces,
  chosenId,
  onGo,
}: {
  pupil: PupilDetail
  pieces: readonly PieceLine[]
  chosenId: string
  onGo: (pieceId: string | null) => void
}) {
  return (
    <ScrollView style={BESIDE}>
      <Press onPress={() => onGo(null)} style={ROW}>
        <DrawnSymbol name="back" size={24} />
        <Peg peg={pupil.peg} size={40} />
        <Text variant="titleMedium" style={{ flex: 1 }}>
          {t('toPupil', { name: pupil.firstName })}
        </Text>
      </Press>
      {pieces.map((piece) => (
        <Press
          key={piece.id}
          onPress={() => onGo(piece.id)}
          style={{
            ...ROW,
            borderLeftWidth: 4,
            borderLeftColor: piece.id === chosenId ? colours.aubergine : 'transparent',
            backgroundColor: piece.id === chosenId ? colours.aubergineTint : 'transparent',
          }}
        >
          <View style={{ flex: 1 }}>
            <Text variant="titleSmall" numberOfLines={1}>
              {piece.title || piece.task?.title || piecesWords('untitled')}
            </Text>
            <Text variant="bodySmall" style={{ color: colours.inkSoft }} numberOfLines={1}>
              {[kitWords(`states.${piece.state}`), piece.folder?.name].filter(Boolean).join(' · ')}
            </Text>
          </View>
        </Press>
      ))}
      <Text variant="bodySmall" style={{ color: colours.inkSoft, padding: space.clear }}>
        {t('pupilKeys')}
      </Text>
    </ScrollView>
  )
}

const ROW: ViewStyle = {
  ...{ minHeight: targets.adult + 8, paddingHorizontal: space.clear, paddingVertical: space.close },
  flexDirection: 'row',
  alignItems: 'center',
  gap: space.near,
}
const BESIDE = {
  ...{ flexGrow: 0, width: 270 },
  ...{ borderRightWidth: 1, borderRightColor: colours.rule, backgroundColor: colours.sheet },
} as const
