import type { TrayLine } from '@nibquill/contract'
import { groupTray, TRAY_GROUPINGS, type TrayGrouping } from '@nibquill/core/review/groupTray'
import { TRAY_ORDERS } from '@nibquill/core/review/trayOrder'
import type { Sitting } from '@nibquill/core/review/sitting'
import { router } from 'expo-router'
import { memo, useCallback, useEffect, useRef, useState, type CSSProperties } from 'react'
import { ScrollView, View, type NativeScrollEvent, type NativeSyntheticEvent } from 'react-native'
import { Text } from 'react-native-paper'
import { FirstSteps } from '../classes'
import { useWaitingComments } from '../comments'
import { BigButton } from '../kit/BigButton'
import { timeOf } from '../kit/dates'
import { useWhen } from '../kit/useWhen'
import { Bar, Stack, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { useTitle } from '../kit/useTitle'
import { StaffNewsBox, useStaffNews } from '../notices'
import { useClasses } from '../school'
import { useSecondLooks, type useTray } from './reviewQueries'
import type { TrayView } from './useTrayView'
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
  marked,
  onGo,
  onTogether,
}: {
  title: string
  pieces: readonly TrayLine[]
  chosenId: string | null
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

/** Easily hit, without pushing the lines apart. */
const IN_LINE = { minHeight: 44, marginVertical: -12, justifyContent: 'center' } as const

function TrayHead({
  counts,
  view,
  onChange,
}: {
  counts: { waiting: number; drafts: number }
  view: TrayView
  onChange: (more: Partial<TrayView>) => void
}) {
  useTitle(t('tray'))
  const classes = (useClasses().data ?? []).filter(({ mine, running }) => mine && running)
  const other = TRAY_ORDERS.find((one) => one !== view.order)!
  return (
    <Stack
      gap="near"
      style={{ padding: space.clear, borderBottomWidth: 1, borderBottomColor: colours.rule }}
    >
      <Text role="heading" aria-level={1} variant="headlineLarge">
        {t('tray')}
      </Text>
      <Bar wrap gap="close">
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {t('waiting', { count: counts.waiting })}
        </Text>
        <CommentsLink />
        <SecondLooksLink />
        {counts.drafts > 0 ? (
          <Press
            role="link"
            onPress={() =>
              router.push({
                pathname: '/tray/drafts',
                params: view.classId ? { class: view.classId } : {},
              })
            }
            style={IN_LINE}
          >
            <Text variant="bodyMedium" style={{ color: colours.sea }}>
              {t('drafts', { count: counts.drafts })}
            </Text>
          </Press>
        ) : null}
      </Bar>
      {classes.length > 1 ? (
        <SmallTabs
          label={t('whichClass')}
          value={view.classId ?? ''}
          options={[
            { value: '', label: t('allClasses') },
            ...classes.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(classId) => onChange({ classId: classId || undefined })}
        />
      ) : null}
      <SmallTabs
        label={t('groupBy')}
        value={view.by}
        options={TRAY_GROUPINGS.map((by) => ({ value: by, label: t(`group.${by}`) }))}
        onChange={(by) => onChange({ by })}
      />
      <Press
        label={`${t(`orders.${view.order}`)}, ${t('turnTo', { order: t(`orders.${other}`) })}`}
        onPress={() => onChange({ order: other })}
        style={{ ...IN_LINE, marginVertical: -8, paddingHorizontal: 10 }}
      >
        <Bar gap="tight">
          <DrawnSymbol name="sort" size={18} colour={colours.sea} />
          <Text variant="bodySmall" style={{ color: colours.sea }}>
            {t(`orders.${view.order}`)}
          </Text>
        </Bar>
      </Press>
    </Stack>
  )
}

function CommentsLink() {
  const count = useWaitingComments().data?.length ?? 0
  if (count === 0) return null
  return (
    <Press role="link" onPress={() => router.push('/tray/comments')} style={IN_LINE}>
      <Text variant="bodyMedium" style={{ color: colours.sea }}>
        {t('comments', { count })}
      </Text>
    </Press>
  )
}

function SecondLooksLink() {
  const count = useSecondLooks().data?.length ?? 0
  if (count === 0) return null
  return (
    <Press role="link" onPress={() => router.push('/tray/second-looks')} style={IN_LINE}>
      <Text variant="bodyMedium" style={{ color: colours.sea }}>
        {t('secondLooks', { count })}
      </Text>
    </Press>
  )
}

function SmallTabs<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: T
  options: readonly { value: T; label: string }[]
  onChange: (value: T) => void
}) {
  return (
    <Bar role="tablist" aria-label={label} align="stretch" gap="tight" wrap>
      {options.map((option) => {
        const chosen = option.value === value
        return (
          <Press
            key={option.value}
            role="tab"
            selected={chosen}
            label={option.label}
            onPress={() => onChange(option.value)}
            style={{
              minHeight: targets.adult,
              paddingHorizontal: 10,
              justifyContent: 'center',
              borderRadius: corners.button,
              backgroundColor: chosen ? colours.aubergineTint : 'transparent',
            }}
          >
            <Text
              variant={chosen ? 'labelMedium' : 'bodySmall'}
              style={{ color: chosen ? colours.aubergine : colours.inkSoft }}
            >
              {option.label}
            </Text>
          </Press>
        )
      })}
    </Bar>
  )
}

/**
 * What came meanwhile, in a line below the list: shown when it is wanted, so that the list stays
 * under the hand.
 */
function NewLine({ what, onShow }: { what: string; onShow: () => void }) {
  const says = `${what}, ${t('showNew')}`
  return (
    <Press
      label={says}
      onPress={onShow}
      style={{
        backgroundColor: colours.ochreTint,
        borderRadius: corners.button,
        margin: space.near,
        padding: space.apart,
        minHeight: targets.adult,
        justifyContent: 'center',
      }}
    >
      <Text variant="labelMedium" style={{ color: colours.ochreText }}>
        {says}
      </Text>
    </Press>
  )
}

/** What one should know of stands above the list as it was when the list came; what comes later waits. */
function useNewsAtStart() {
  const ids = useStaffNews().map(({ id }) => id)
  const [shown, setShown] = useState<ReadonlySet<string>>(new Set(ids))
  return {
    shown,
    late: ids.filter((id) => !shown.has(id)).length,
    showLate: () => setShown(new Set(ids)),
  }
}

type ListProps = {
  tray: ReturnType<typeof useTray>
  sitting: Sitting<TrayLine>
  view: TrayView
  fresh: number
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
        {isEmpty && fresh === 0 && !wide ? <NothingJudged isEmpty /> : null}
      </ScrollView>
      {news.late > 0 ? (
        <NewLine
          what={t('newsSince', { count: news.late })}
          onShow={() => {
            news.showLate()
            scroll.current?.scrollTo({ y: 0 })
          }}
        />
      ) : null}
      {fresh > 0 ? <NewLine what={t('newSince', { count: fresh })} onShow={onShowFresh} /> : null}
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
  marked,
  onGo,
}: {
  piece: TrayLine
  chosen: boolean
  /** A teacher wants to come back to it. */
  marked: boolean
  onGo: (pieceId: string) => void
}) {
  const { whenWasIt } = useWhen()
  const name = `${piece.pupil.firstName} ${piece.pupil.lastName}`
  const when = piece.submittedAt ? whenWasIt(piece.submittedAt) : ''
  const short =
    when.startsWith('today ') && piece.submittedAt ? timeOf(new Date(piece.submittedAt)) : when
  // What lies on the desk is in sight in the list as well.
  const row = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
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
