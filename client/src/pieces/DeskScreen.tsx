import type { NewsItem, PieceLine, Task } from '@nibquill/contract'
import { router } from 'expo-router'
import { useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { ProgressBar, Text } from 'react-native-paper'
import { useHandOver } from '../accounts/handOver'
import { useSession } from '../accounts/session'
import { strings as accountWords } from '../accounts/strings'
import { Ask } from '../kit/Ask'
import { whenIsItDue } from '../kit/dates'
import { TrayDrawing } from '../kit/FolderDrawing'
import { Heading, useWidth } from '../kit/layout'
import { Listen, Loading, Notice, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { Sheet } from '../kit/Sheet'
import { Symbol } from '../kit/Symbol'
import { colours, corners, pigments, shadow, targets } from '../kit/theme'
import { NoticesFor } from '../notices/NoticesFor'
import { useMarkNewsSeen, useNews } from '../notices/noticesQueries'
import { strings as noticeWords } from '../notices/strings'
import { useTasks } from '../tasks/tasksQueries'
import { MakeBar } from './MakeBar'
import { useMyPieces } from './piecesQueries'
import { strings } from './strings'
import { useSendings } from './uploads'

/** A pupil's first screen: who I am, news, another go, what is to do, what is on the go, what waits. */
export function DeskScreen() {
  const pieces = useMyPieces()
  const tasks = useTasks()
  const news = useNews()
  const { tablet } = useWidth()
  if (pieces.isPending || tasks.isPending) return <Loading />
  if (pieces.isError) return <ProblemNotice error={pieces.error} onRetry={() => void pieces.refetch()} />
  if (tasks.isError) return <ProblemNotice error={tasks.error} onRetry={() => void tasks.refetch()} />
  const inState = (state: PieceLine['state']) => pieces.data.pieces.filter((piece) => piece.state === state)
  const toDo = tasks.data
    .filter((task) => task.myPieces.length === 0 && !task.ticked)
    .sort((a, b) => Number(b.nudgedAt !== null) - Number(a.nudgedAt !== null))
  const elsewhere = tasks.data.filter((task) => task.ticked && task.myPieces.length === 0)
  const returned = inState('returned')
  const drafts = inState('draft')
  return (
    <View style={{ flex: 1 }}>
      <ScrollView
        contentContainerStyle={{ padding: 20, paddingBottom: 28, gap: 20, width: '100%', maxWidth: 1080, alignSelf: 'center' }}
      >
        <DeskHead />
        <NewsLine news={news.data ?? []} />
        <NoticesFor title={noticeWords.fromTeacher} keepSeen={false} />
        <View style={{ flexDirection: tablet ? 'row' : 'column', gap: 24, alignItems: 'flex-start' }}>
          <View style={{ flex: tablet ? 1 : undefined, width: tablet ? undefined : '100%', gap: 20 }}>
            {returned.length > 0 ? (
              <Section title={strings.anotherGo} count={returned.length}>
                {returned.map((piece) => (
                  <ReturnedRow key={piece.id} piece={piece} />
                ))}
              </Section>
            ) : null}
            <Section title={strings.toDo} count={toDo.length}>
              {toDo.map((task) => (
                <TaskRow key={task.id} task={task} />
              ))}
              {toDo.length === 0 ? (
                <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
                  {strings.nothingToDo}
                </Text>
              ) : null}
            </Section>
            {elsewhere.length > 0 ? (
              <Section title={strings.tickedTasks} count={elsewhere.length}>
                {elsewhere.map((task) => (
                  <TaskRow key={task.id} task={task} />
                ))}
              </Section>
            ) : null}
          </View>
          <View style={{ flex: tablet ? 1 : undefined, width: tablet ? undefined : '100%', gap: 20 }}>
            {drafts.length > 0 ? (
              <Section title={strings.onTheGo} count={drafts.length}>
                {drafts.map((piece) => (
                  <DraftRow key={piece.id} piece={piece} />
                ))}
              </Section>
            ) : null}
            <TrayCorner pieces={inState('submitted')} />
          </View>
        </View>
      </ScrollView>
      <MakeBar />
    </View>
  )
}

function Section({ title, count, children }: { title: string; count: number; children: React.ReactNode }) {
  return (
    <View role="region" aria-label={title} style={{ gap: 12 }}>
      <Heading count={count}>{title}</Heading>
      {children}
    </View>
  )
}

function DeskHead() {
  const session = useSession()
  const { handOver } = useHandOver()
  const [asking, setAsking] = useState(false)
  const person = session.data?.person
  if (!person) return null
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 14 }}>
      {person.peg ? <Peg peg={person.peg} size={60} /> : null}
      <View style={{ flex: 1 }}>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {person.className ? strings.classOf(person.className) : ''}
        </Text>
        <Heading level={1}>{strings.deskOf(person.firstName)}</Heading>
      </View>
      <RoundButton label={strings.leave} symbol="people" onPress={() => setAsking(true)} colour={colours.inkSoft} />
      <Ask
        visible={asking}
        title={accountWords.signOutAsk}
        yes={strings.leave}
        no={accountWords.stay}
        onYes={() => {
          setAsking(false)
          void handOver()
        }}
        onNo={() => setAsking(false)}
      >
        {accountWords.signOutHelp}
      </Ask>
    </View>
  )
}

export const newsText = (item: NewsItem): string =>
  item.kind === 'approved'
    ? strings.newsApproved(item.teacherName, item.pieceTitle, item.folderName ?? '')
    : strings.newsReturned(item.teacherName, item.pieceTitle)

/** The newest thing that happened, in one line; tapped, it opens the piece. It counts as seen once it has been on screen. */
function NewsLine({ news }: { news: NewsItem[] }) {
  const markSeen = useMarkNewsSeen()
  const newest = news[0]
  const unseen = news.some((item) => !item.seen)
  const mark = markSeen.mutate
  useEffect(() => {
    if (!unseen) return
    const timer = setTimeout(() => mark(), 8000)
    return () => clearTimeout(timer)
  }, [unseen, mark])
  if (!newest) return null
  const text = newsText(newest) + (newest.message ? `. “${newest.message}”` : '')
  return (
    <View role="region" aria-label={strings.news}>
      <Notice tone="news" symbol="quill" action={<Listen text={text} />}>
        <Press
          role="link"
          label={newsText(newest)}
          onPress={() => router.push(`/my-pieces/${newest.pieceId}`)}
          style={{ minHeight: 40, justifyContent: 'center' }}
        >
          <Text variant={newest.seen ? 'bodyLarge' : 'titleMedium'}>{newsText(newest)}</Text>
        </Press>
      </Notice>
    </View>
  )
}

function Card({ edge, onPress, children }: { edge: string; onPress: () => void; children: React.ReactNode }) {
  return (
    <Press
      onPress={onPress}
      style={[
        {
          backgroundColor: colours.sheet,
          borderRadius: corners.button,
          borderLeftWidth: 6,
          borderLeftColor: edge,
          padding: 14,
          flexDirection: 'row',
          alignItems: 'center',
          gap: 14,
          minHeight: targets.pupil + 10,
        },
        shadow,
      ]}
    >
      {children}
    </Press>
  )
}

function ReturnedRow({ piece }: { piece: PieceLine }) {
  return (
    <Card edge={colours.clay} onPress={() => router.push(`/my-pieces/${piece.id}`)}>
      <Sheet piece={piece} width={118} />
      <View style={{ flex: 1, gap: 2 }}>
        <Text variant="titleMedium">{piece.title}</Text>
        {piece.message ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }} numberOfLines={3}>
            “{piece.message}”
          </Text>
        ) : null}
      </View>
      <View
        style={{
          width: 42,
          height: 42,
          borderRadius: 42,
          backgroundColor: colours.clay,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <Symbol name="next" size={28} colour={colours.sheet} />
      </View>
    </Card>
  )
}

function TaskRow({ task }: { task: Task }) {
  return (
    <Card edge={pigments[task.folder.colour]} onPress={() => router.push(`/my-tasks/${task.id}`)}>
      <Symbol name={task.folder.symbol} size={36} colour={pigments[task.folder.colour]} />
      <View style={{ flex: 1 }}>
        {task.nudgedAt ? (
          <Text variant="labelMedium" style={{ color: colours.clay }}>
            {strings.reminded}
          </Text>
        ) : null}
        <Text variant="titleMedium">{task.title}</Text>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {task.folder.name}, {task.dueAt ? whenIsItDue(task.dueAt) : strings.thisWeek}
        </Text>
      </View>
      <Symbol
        name={task.ticked ? 'tick' : task.nudgedAt ? 'nudge' : 'camera'}
        size={26}
        colour={task.nudgedAt ? colours.clay : colours.inkSoft}
      />
      <Symbol name="next" size={24} colour={colours.ink} />
    </Card>
  )
}

function DraftRow({ piece }: { piece: PieceLine }) {
  const sendings = useSendings(piece.id)
  const total = sendings.reduce((sum, { sizeBytes }) => sum + sizeBytes, 0)
  const share = total ? sendings.reduce((sum, { sentBytes }) => sum + sentBytes, 0) / total : 0
  const title = piece.title || piece.taskTitle || strings.untitled
  return (
    <Press onPress={() => router.push(`/my-pieces/${piece.id}`)} style={{ flexDirection: 'row', gap: 16, alignItems: 'center' }}>
      <Sheet piece={piece} width={118} />
      <View style={{ flex: 1, gap: 2 }}>
        <Text variant="titleMedium">{title}</Text>
        <Text variant="labelMedium" style={{ color: colours.ochreText }}>
          {strings.notHandedIn}
        </Text>
        {sendings.length > 0 ? (
          <>
            <Text variant="bodyMedium">{strings.photosOnTheirWay(sendings.length, share)}</Text>
            <ProgressBar
              progress={share}
              color={colours.aubergine}
              style={{ height: 7, borderRadius: 4, backgroundColor: colours.rule }}
            />
          </>
        ) : null}
      </View>
    </Press>
  )
}

function TrayCorner({ pieces }: { pieces: PieceLine[] }) {
  return (
    <Section title={strings.inTheTray} count={pieces.length}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
        <TrayDrawing count={pieces.length} width={92} />
        <Text variant="bodyLarge" style={{ flex: 1, color: colours.inkSoft }}>
          {strings.trayWaits(pieces.length)}
        </Text>
      </View>
      {pieces.map((piece) => (
        <Press
          key={piece.id}
          onPress={() => router.push(`/my-pieces/${piece.id}`)}
          style={{ flexDirection: 'row', gap: 16, alignItems: 'center', minHeight: targets.pupil }}
        >
          <Sheet piece={piece} width={84} />
          <Text variant="titleSmall" style={{ flex: 1 }}>
            {piece.title}
          </Text>
        </Press>
      ))}
    </Section>
  )
}
