import type { PieceLine } from '@nibquill/contract'
import { groupTray, TRAY_GROUPINGS, type TrayGrouping } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useMemo, useRef, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { timeOf, whenWasIt } from '../kit/dates'
import { useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, corners, targets } from '../kit/theme'
import { StaffNewsBox } from '../notices'
import { Judging } from './Judging'
import { FirstSteps } from '../classes'
import { useTray } from './reviewQueries'
import { strings } from './strings'

function titleOf(piece: PieceLine, by: TrayGrouping): string {
  if (by === 'task') return piece.task?.title ?? strings.noTask
  if (by === 'folder') return piece.folder?.name ?? strings.noFolder
  return `${piece.pupil.firstName} ${piece.pupil.lastName}`
}

function TrayGroupRows({
  title,
  pieces,
  chosenId,
  onGo,
}: {
  title: string
  pieces: readonly PieceLine[]
  chosenId: string | undefined
  onGo: (pieceId: string) => void
}) {
  return (
    <View role="region" aria-label={title}>
      <Text
        variant="bodySmall"
        style={{ color: colours.inkSoft, paddingHorizontal: 16, paddingTop: 12, paddingBottom: 4 }}
      >
        {`${title} · ${pieces.length}`}
      </Text>
      {pieces.map((piece) => (
        <TrayRow
          key={piece.id}
          piece={piece}
          chosen={piece.id === chosenId}
          onPress={() => onGo(piece.id)}
        />
      ))}
    </View>
  )
}

function TrayHead({
  counts,
  grouping,
  onGroup,
}: {
  counts: { waiting: number; drafts: number }
  grouping: TrayGrouping
  onGroup: (by: TrayGrouping) => void
}) {
  return (
    <View style={{ padding: 16, gap: 8, borderBottomWidth: 1, borderBottomColor: colours.rule }}>
      <Text role="heading" aria-level={1} variant="headlineLarge">
        {strings.tray}
      </Text>
      <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
        {strings.waiting(counts.waiting) + strings.drafts(counts.drafts)}
      </Text>
      <View role="tablist" aria-label={strings.groupBy} style={{ flexDirection: 'row', gap: 4 }}>
        {TRAY_GROUPINGS.map((by) => (
          <Press
            key={by}
            role="tab"
            selected={grouping === by}
            label={strings.group[by]}
            onPress={() => onGroup(by)}
            style={{
              minHeight: targets.adult,
              paddingHorizontal: 10,
              justifyContent: 'center',
              borderRadius: corners.button,
              backgroundColor: grouping === by ? colours.aubergineTint : 'transparent',
            }}
          >
            <Text
              variant={grouping === by ? 'labelMedium' : 'bodySmall'}
              style={{ color: grouping === by ? colours.aubergine : colours.inkSoft }}
            >
              {strings.group[by]}
            </Text>
          </Press>
        ))}
      </View>
    </View>
  )
}

/** What came meanwhile: shown when it is wanted, so that the list stays under the hand. */
function NewLine({ fresh, onShow }: { fresh: number; onShow: () => void }) {
  return (
    <Press
      label={`${strings.newSince(fresh)}, ${strings.showNew}`}
      onPress={onShow}
      style={{
        backgroundColor: colours.ochreTint,
        borderRadius: corners.button,
        padding: 12,
        minHeight: targets.adult,
      }}
    >
      <Text
        variant="labelMedium"
        style={{ color: colours.ochreText }}
      >{`${strings.newSince(fresh)}, ${strings.showNew}`}</Text>
    </Press>
  )
}

/** The tray: list beside the judging desk on wide screens; one after the other on a phone. */
export function TrayScreen() {
  const { id } = useLocalSearchParams<{ id?: string }>()
  const { wide } = useWidth()
  const tray = useTray()
  const [grouping, setGrouping] = useState<TrayGrouping>('task')
  const loaded = useMemo(() => tray.data?.pages.flatMap((page) => page.pieces) ?? null, [tray.data])
  const { shown, fresh, showFresh } = useSteadyList(loaded, tray.data?.pages.length ?? 0)
  const groups = useMemo(() => groupTray(shown, grouping), [shown, grouping])
  const order = groups.flatMap((group) => group.pieces)

  const first = order[0]?.id
  useEffect(() => {
    if (wide && !id && first) router.replace(`/tray/${first}`)
  }, [wide, id, first])
  if (!isHere(tray)) return <NotYet of={tray} />

  const at = order.findIndex((piece) => piece.id === id)
  const neighbour = (by: 1 | -1) =>
    order[at + by]?.id ?? (by === 1 && at === -1 ? order[0]?.id : undefined)
  const go = (pieceId: string | undefined) => router.replace(pieceId ? `/tray/${pieceId}` : '/tray')
  const judging = id ? (
    <Judging key={id} pieceId={id} nextId={neighbour(1)} previousId={neighbour(-1)} onGo={go} />
  ) : null
  if (!wide && judging) return judging

  const counts = tray.data.pages[0]!
  const list = (
    <View
      style={{
        width: wide ? 300 : '100%',
        flex: wide ? undefined : 1,
        backgroundColor: colours.sheet,
        borderRightWidth: wide ? 1 : 0,
        borderRightColor: colours.rule,
      }}
    >
      <TrayHead counts={counts} grouping={grouping} onGroup={setGrouping} />
      <ScrollView>
        <View style={{ paddingHorizontal: 12, paddingTop: 12 }}>
          <StaffNewsBox />
        </View>
        {fresh > 0 ? (
          <View style={{ padding: 12 }}>
            <NewLine fresh={fresh} onShow={showFresh} />
          </View>
        ) : null}
        {groups.map((group) => (
          <TrayGroupRows
            key={group.id}
            title={titleOf(group.pieces[0]!, grouping)}
            pieces={group.pieces}
            chosenId={id}
            onGo={go}
          />
        ))}
        {tray.hasNextPage ? (
          <View style={{ padding: 12 }}>
            <BigButton
              small
              tone="quiet"
              label={strings.more}
              onPress={() => void tray.fetchNextPage()}
              busy={tray.isFetchingNextPage}
            />
          </View>
        ) : null}
        {order.length === 0 && fresh === 0 && !wide ? (
          <View style={{ padding: 16 }}>
            <FirstSteps />
          </View>
        ) : null}
        {order.length === 0 && fresh === 0 && !wide ? (
          <Empty symbol="tray" title={strings.emptyTitle}>
            {strings.empty}
          </Empty>
        ) : null}
      </ScrollView>
    </View>
  )
  if (!wide) return list
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      {list}
      <View style={{ flex: 1 }}>
        {judging ? null : (
          <View style={{ padding: 24, maxWidth: 620, width: '100%', alignSelf: 'center' }}>
            <FirstSteps />
          </View>
        )}
        {judging ?? (
          <Empty symbol="tray" title={order.length === 0 ? strings.emptyTitle : strings.choose}>
            {order.length === 0 ? strings.empty : undefined}
          </Empty>
        )}
      </View>
    </View>
  )
}

function TrayRow({
  piece,
  chosen,
  onPress,
}: {
  piece: PieceLine
  chosen: boolean
  onPress: () => void
}) {
  const name = `${piece.pupil.firstName} ${piece.pupil.lastName}`
  const when = piece.submittedAt ? whenWasIt(piece.submittedAt) : ''
  const short =
    when.startsWith('today ') && piece.submittedAt ? timeOf(new Date(piece.submittedAt)) : when
  return (
    <Press
      onPress={onPress}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        paddingHorizontal: 16,
        paddingVertical: 9,
        minHeight: 62,
        backgroundColor: chosen ? colours.aubergineTint : 'transparent',
        borderLeftWidth: 4,
        borderLeftColor: chosen ? colours.aubergine : 'transparent',
      }}
    >
      <Peg peg={piece.pupil.peg} size={40} />
      <View style={{ flex: 1 }}>
        <Text variant="titleSmall">{name}</Text>
        <Text variant="bodySmall" numberOfLines={1} style={{ color: colours.inkSoft }}>
          {piece.title}
        </Text>
      </View>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {short}
      </Text>
    </Press>
  )
}

/**
 * What arrives while somebody is judging waits in one line, so that nothing jumps under the finger;
 * what left is gone at once.
 */
function useSteadyList(
  loaded: PieceLine[] | null,
  pages: number,
): { shown: PieceLine[]; fresh: number; showFresh: () => void } {
  const known = useRef<{ ids: Set<string>; pages: number } | null>(null)
  const [, again] = useState(0)
  if (loaded) {
    const ids = loaded.map(({ id }) => id)
    // A further page was asked for, so it belongs to the list at once.
    if (known.current === null || known.current.pages !== pages)
      known.current = { ids: new Set(ids), pages }
    // Handed in again later, a piece is new again.
    else for (const id of known.current.ids) if (!ids.includes(id)) known.current.ids.delete(id)
  }
  const shown = (loaded ?? []).filter(({ id }) => known.current?.ids.has(id))
  const showFresh = () => {
    known.current = null
    again((n) => n + 1)
  }
  return { shown, fresh: (loaded?.length ?? 0) - shown.length, showFresh }
}
