import type { PieceLine } from '@nibquill/contract'
import { groupTray, TRAY_GROUPINGS, type TrayGrouping } from '@nibquill/core/review/groupTray'
import { placeInSitting, type Sitting } from '@nibquill/core/review/sitting'
import { router, useLocalSearchParams } from 'expo-router'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { timeOf, whenWasIt } from '../kit/dates'
import { Bar, Stack, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, corners, space, targets } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { useTitle } from '../kit/useTitle'
import { StaffNewsBox } from '../notices'
import { Judging } from './Judging'
import { FirstSteps } from '../classes'
import { useTray } from './reviewQueries'
import { useSitting } from './sittingStore'
import { Through } from './Through'
import { t } from './words'

function titleOf(piece: PieceLine, by: TrayGrouping): string {
  if (by === 'task') return piece.task?.title ?? t('noTask')
  if (by === 'folder') return piece.folder?.name ?? t('noFolder')
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
  chosenId: string | null
  onGo: (pieceId: string) => void
}) {
  return (
    <View role="region" aria-label={title}>
      <Text
        variant="bodySmall"
        style={{
          color: colours.inkSoft,
          paddingHorizontal: space.clear,
          paddingTop: space.apart,
          paddingBottom: space.tight,
        }}
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

/** Easily hit, without pushing the lines apart. */
const DRAFTS = { minHeight: 44, marginVertical: -12, justifyContent: 'center' } as const

function TrayHead({
  counts,
  grouping,
  onGroup,
}: {
  counts: { waiting: number; drafts: number }
  grouping: TrayGrouping
  onGroup: (by: TrayGrouping) => void
}) {
  useTitle(t('tray'))
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
        {counts.drafts > 0 ? (
          <Press role="link" onPress={() => router.push('/class?sort=draft')} style={DRAFTS}>
            <Text variant="bodyMedium" style={{ color: colours.sea }}>
              {t('drafts', { count: counts.drafts })}
            </Text>
          </Press>
        ) : null}
      </Bar>
      <Bar role="tablist" aria-label={t('groupBy')} align="stretch" gap="tight">
        {TRAY_GROUPINGS.map((by) => (
          <Press
            key={by}
            role="tab"
            selected={grouping === by}
            label={t(`group.${by}`)}
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
              {t(`group.${by}`)}
            </Text>
          </Press>
        ))}
      </Bar>
    </Stack>
  )
}

/** What came meanwhile: shown when it is wanted, so that the list stays under the hand. */
function NewLine({ fresh, onShow }: { fresh: number; onShow: () => void }) {
  return (
    <Press
      label={`${t('newSince', { count: fresh })}, ${t('showNew')}`}
      onPress={onShow}
      style={{
        backgroundColor: colours.ochreTint,
        borderRadius: corners.button,
        margin: space.apart,
        padding: space.apart,
        minHeight: targets.adult,
      }}
    >
      <Text
        variant="labelMedium"
        style={{ color: colours.ochreText }}
      >{`${t('newSince', { count: fresh })}, ${t('showNew')}`}</Text>
    </Press>
  )
}

/** The tray: list beside the judging desk on wide screens; one after the other on a phone. */
export function TrayScreen() {
  const { id, end } = useLocalSearchParams<{ id?: string; end?: string }>()
  const { wide } = useWidth()
  const tray = useTray()
  const [grouping, setGrouping] = useState<TrayGrouping>('task')
  const loaded = useMemo(() => tray.data?.pages.flatMap((page) => page.pieces) ?? null, [tray.data])
  const { sitting, fresh, showFresh } = useSitting(
    loaded,
    tray.data?.pages.length ?? 0,
    end !== undefined,
  )
  if (!isHere(tray)) return <NotYet of={tray} />

  const start = placeInSitting(sitting, grouping, null)
  // Wide, the first of them lies on the desk already.
  const shownId = id ?? (wide && !end ? start.nextId : null)
  const place = placeInSitting(sitting, grouping, shownId)
  const go = (pieceId: string | null) => router.replace(pieceId ? `/tray/${pieceId}` : '/tray')
  const desk = shownId ? (
    <Judging
      key={shownId}
      pieceId={shownId}
      place={place}
      onGo={go}
      onDecided={() =>
        place.nextId
          ? go(place.nextId)
          : router.replace({ pathname: '/tray', params: { end: '1' } })
      }
    />
  ) : end ? (
    <Through
      sitting={sitting}
      fresh={fresh}
      firstId={start.nextId}
      onGo={go}
      onShowFresh={() => (showFresh(), go(null))}
    />
  ) : null
  if (!wide && desk) return desk

  const isEmpty = sitting.pieces.length === sitting.gone.size
  const list = (
    <TrayList
      {...{ tray, sitting, grouping, fresh, shownId }}
      onGroup={setGrouping}
      onShowFresh={showFresh}
      onGo={go}
    />
  )
  if (!wide) return list
  return (
    <Bar align="stretch" gap="none" style={{ flex: 1 }}>
      {list}
      <View style={{ flex: 1 }}>
        {desk ?? <NothingJudged isEmpty={isEmpty} />}
        {shownId ? null : <ToastPlace />}
      </View>
    </Bar>
  )
}

type ListProps = {
  tray: ReturnType<typeof useTray>
  sitting: Sitting<PieceLine>
  grouping: TrayGrouping
  fresh: number
  shownId: string | null
  onGroup: (by: TrayGrouping) => void
  onShowFresh: () => void
  onGo: (pieceId: string) => void
}

function TrayList(props: ListProps) {
  const { tray, sitting, grouping, fresh, shownId, onGroup, onShowFresh, onGo } = props
  const { wide } = useWidth()
  const isEmpty = sitting.pieces.length === sitting.gone.size
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
        grouping={grouping}
        onGroup={onGroup}
      />
      <ScrollView>
        <View style={{ paddingHorizontal: space.apart, paddingTop: space.apart }}>
          <StaffNewsBox />
        </View>
        {fresh > 0 ? <NewLine fresh={fresh} onShow={onShowFresh} /> : null}
        {groupsOnScreen(sitting, grouping).map((group) => (
          <TrayGroupRows
            key={group.id}
            title={titleOf(group.pieces[0]!, grouping)}
            pieces={group.pieces}
            chosenId={shownId}
            onGo={onGo}
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
      {wide ? null : <ToastPlace />}
    </View>
  )
}

/** Groups in the order they had when the sitting began, without what left. */
const groupsOnScreen = (sitting: Sitting<PieceLine>, by: TrayGrouping) =>
  groupTray(sitting.pieces, by)
    .map(({ id, pieces }) => ({ id, pieces: pieces.filter((one) => !sitting.gone.has(one.id)) }))
    .filter(({ pieces }) => pieces.length > 0)

/** Where a piece would lie: what is left to set up, and that the tray is empty or one is to be chosen. */
const NothingJudged = ({ isEmpty }: { isEmpty: boolean }) => (
  <>
    <View style={{ padding: space.clear, maxWidth: 620, width: '100%', alignSelf: 'center' }}>
      <FirstSteps />
    </View>
    <Empty symbol="tray" title={isEmpty ? t('emptyTitle') : t('choose')}>
      {isEmpty ? t('empty') : undefined}
    </Empty>
  </>
)

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
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {short}
      </Text>
    </Press>
  )
}
