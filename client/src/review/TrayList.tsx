import type { TrayLine } from '@nibquill/contract'
import { groupTray, type TrayGrouping } from '@nibquill/core/review/groupTray'
import type { Sitting } from '@nibquill/core/review/sitting'
import { memo, useCallback, useEffect, useRef, useState, type CSSProperties } from 'react'
import { ScrollView, View, type NativeScrollEvent, type NativeSyntheticEvent } from 'react-native'
import { Text } from 'react-native-paper'
import { FirstSteps } from '../classes'
import { BigButton } from '../kit/BigButton'
import { timeOf } from '../kit/dates'
import { useWhen } from '../kit/useWhen'
import { Bar, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { StaffNewsBox, useNewsAtStart } from '../notices'
import { useSecondLooks, type useTray } from './reviewQueries'
import { IN_LINE, TrayHead } from './TrayHead'
import type { TrayView } from './useTrayView'
import { WhatIsNew } from './WhatIsNew'
import { t } from './words'

/** What a group goes by. @param piece - Any of it. */
export function titleOfGroup(piece: TrayLine, by: TrayGrouping): string {
  if (by === 'task') return piece.task?.title ?? t('noTask')
  if (by === 'folder') return piece.folder?.name ?? t('noFolder')
  return `${piece.pupil.firstName} ${piece.pupil.lastName}`
}

function TrayGroupRows({
  title,
  pieces,
  chosenId,
  soughtId,
  marked,
  onGo,
  onTogether,
}: {
  title: string
  pieces: readonly TrayLine[]
  chosenId: string | null
  /** Has just come in and is to be seen. */
  soughtId: string | null
  marked: ReadonlySet<string>
  onGo: (pieceId: string) => void
  onTogether: () => void
}) {
  return (
    <View role="region" aria-label={title}>
      <Bar between gap="near" style={GROUP}>
        <Text variant="bodySmall" style={{ color: colours.inkSoft, flex: 1 }}>
          {`${title} · ${pieces.length}`}
        </Text>
        {pieces.length > 1 ? (
          <Press
            role="link"
            label={t('seeTogether', { group: title })}
            onPress={onTogether}
            style={{ ...IN_LINE, minWidth: targets.adult, alignItems: 'flex-end' }}
          >
            <DrawnSymbol name="pictures" size={20} colour={colours.sea} />
          </Press>
        ) : null}
      </Bar>
      {pieces.map((piece) => (
        <TrayRow
          key={piece.id}
          piece={piece}
          chosen={piece.id === chosenId}
          sought={piece.id === soughtId}
          marked={marked.has(piece.id)}
          onGo={onGo}
        />
      ))}
    </View>
  )
}

const GROUP = {
  ...{ paddingHorizontal: space.clear, paddingTop: space.apart, paddingBottom: space.tight },
} as const

type ListProps = {
  tray: ReturnType<typeof useTray>
  sitting: Sitting<TrayLine>
  view: TrayView
  /** What came meanwhile, by its ids. */
  fresh: readonly string[]
  shownId: string | null
  onChange: (more: Partial<TrayView>) => void
  onShowFresh: () => void
  onGo: (pieceId: string) => void
  /** @param groupId - Of a task, folder or pupil; null for none. */
  onTogether: (groupId: string | null) => void
}

/** So far above the end of the list more is fetched: it is there when one arrives. */
const AHEAD_PX = 1200

/** What waits, in the order it had when the sitting began. */
export function TrayList(props: ListProps) {
  const { tray, sitting, view, fresh, shownId, onChange, onShowFresh, onTogether } = props
  const latest = useRef(props.onGo)
  latest.current = props.onGo
  const onGo = useCallback((pieceId: string) => latest.current(pieceId), [])
  const { wide } = useWidth()
  const isEmpty = sitting.pieces.length === sitting.gone.size
  // Near the end, what comes next is fetched; where that fails, the button is still there.
  const nearEnd = ({ nativeEvent: at }: NativeSyntheticEvent<NativeScrollEvent>) => {
    const below = at.contentSize.height - at.contentOffset.y - at.layoutMeasurement.height
    if (below < AHEAD_PX && tray.hasNextPage && !tray.isFetchingNextPage) void tray.fetchNextPage()
  }
  const scroll = useRef<ScrollView>(null)
  const news = useNewsAtStart()
  const [cameIn, setCameIn] = useState<string | null>(null)
  const marked = new Set(useSecondLooks().data?.map(({ pieceId }) => pieceId))
  return (
    <View
      style={{
        width: wide ? 300 : '100%',
        flex: wide ? undefined : 1,
        backgroundColor: colours.sheet,
        borderRightWidth: wide ? 1 : 0,
        borderRightColor: colours.rule,
      }}
    >
      <TrayHead
        counts={tray.data?.pages[0] ?? { waiting: 0, drafts: 0 }}
        view={view}
        onChange={onChange}
      />
      <ScrollView ref={scroll} onScroll={nearEnd} scrollEventThrottle={100}>
        <View style={{ paddingHorizontal: space.apart, paddingTop: space.apart }}>
          <StaffNewsBox only={news.shown} />
        </View>
        {groupsOnScreen(sitting, view.by).map((group) => (
          <TrayGroupRows
            key={group.id}
            title={titleOfGroup(group.pieces[0]!, view.by)}
            pieces={group.pieces}
            chosenId={shownId}
            soughtId={cameIn}
            marked={marked}
            onGo={onGo}
            onTogether={() => onTogether(group.id)}
          />
        ))}
        {tray.hasNextPage ? (
          <View style={{ padding: space.apart }}>
            <BigButton
              small
              tone="quiet"
              label={t('more')}
              onPress={() => void tray.fetchNextPage()}
              busy={tray.isFetchingNextPage}
            />
          </View>
        ) : null}
        {isEmpty && fresh.length === 0 && !wide ? <NothingJudged isEmpty /> : null}
      </ScrollView>
      <WhatIsNew
        {...{ fresh, news }}
        onShowNews={() => scroll.current?.scrollTo({ y: 0 })}
        onShowFresh={() => {
          setCameIn(fresh[0]!)
          onShowFresh()
        }}
      />
      {wide ? null : <ToastPlace />}
    </View>
  )
}

/** Groups in the order they had when the sitting began, without what left. */
const groupsOnScreen = (sitting: Sitting<TrayLine>, by: TrayGrouping) =>
  groupTray(sitting.pieces, by)
    .map(({ id, pieces }) => ({ id, pieces: pieces.filter((one) => !sitting.gone.has(one.id)) }))
    .filter(({ pieces }) => pieces.length > 0)

/** Where a piece would lie: what is left to set up, and that the tray is empty or one is to be chosen. */
export const NothingJudged = ({ isEmpty }: { isEmpty: boolean }) => (
  <>
    <View style={{ padding: space.clear, maxWidth: 620, width: '100%', alignSelf: 'center' }}>
      <FirstSteps />
    </View>
    <Empty symbol="tray" title={isEmpty ? t('emptyTitle') : t('choose')}>
      {isEmpty ? t('empty') : undefined}
    </Empty>
  </>
)

/** Drawn anew where something of its own changes: a decision is one of fifty lines. */
const TrayRow = memo(function TrayRow({
  piece,
  chosen,
  sought,
  marked,
  onGo,
}: {
  piece: TrayLine
  chosen: boolean
  sought: boolean
  /** A teacher wants to come back to it. */
  marked: boolean
  onGo: (pieceId: string) => void
}) {
  const { whenWasIt } = useWhen()
  const name = `${piece.pupil.firstName} ${piece.pupil.lastName}`
  const when = piece.submittedAt ? whenWasIt(piece.submittedAt) : ''
  const short =
    when.startsWith('today ') && piece.submittedAt ? timeOf(new Date(piece.submittedAt)) : when
  // What lies on the desk is in sight in the list as well; so is what was asked for.
  const row = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (chosen || sought) row.current?.scrollIntoView({ block: 'nearest' })
  }, [chosen, sought])
  return (
    <div ref={row} style={ROW}>
      <Press
        onPress={() => onGo(piece.id)}
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          gap: space.apart,
          paddingHorizontal: space.clear,
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
        <View style={{ alignItems: 'flex-end' }}>
          <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
            {short}
          </Text>
          {[piece.late && t('late'), marked && t('lookAgain')]
            .filter((mark) => mark !== false)
            .map((mark) => (
              <Text key={mark} variant="labelSmall" style={{ color: colours.ochreText }}>
                {mark}
              </Text>
            ))}
        </View>
      </Press>
    </div>
  )
})

/** Of two thousand only those in sight are laid out and painted. */
const ROW: CSSProperties = {
  ...{ display: 'flex', flexDirection: 'column' },
  ...{ contentVisibility: 'auto', containIntrinsicSize: 'auto 62px' },
}
