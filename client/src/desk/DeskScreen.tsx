import type { NewsItem, PieceLine, Task } from '@nibquill/contract'
import { router } from 'expo-router'
import { useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { accountsStrings as accountWords, useHandOver, useSession } from '../accounts'
import { Ask } from '../kit/Ask'
import { useReached } from '../device/network'
import { BigButton } from '../kit/BigButton'
import { TrayDrawing } from '../kit/FolderDrawing'
import { Heading, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { Sheet } from '../parts/Sheet'
import { colours, targets } from '../kit/theme'
import { NoticesFor, noticesStrings as noticeWords, useMarkNewsSeen, useNews } from '../notices'
import { useFolders } from '../folders'
import { useTasks } from '../tasks'
import { DoneRow, DraftRow, ReturnedRow, TaskRow } from './DeskRows'
import { MakeShelf } from './MakeShelf'
import { useOutbox } from '../outbox/OutboxContext'
import {
  OutboxLine,
  piecesStrings as strings,
  useClassmates,
  useMyPieces,
  useShownLines,
} from '../pieces'

/**
 * A pupil's first screen: who I am, news, another go, what is to do, what is on the go, what waits.
 */
export function DeskScreen() {
  const pieces = useMyPieces()
  const tasks = useTasks()
  const news = useNews()
  const { tablet } = useWidth()
  useNeededAway()
  const shown = useShownLines(pieces.data?.pieces ?? [])
  if (!isHere(pieces) || !isHere(tasks)) return <NotYet of={[pieces, tasks]} />
  const inState = (state: PieceLine['state']) => shown.filter((piece) => piece.state === state)
  const toDo = tasks.data
    .filter((task) => task.myPieces.length === 0 && !task.ticked)
    .sort((a, b) => Number(b.nudgedAt !== null) - Number(a.nudgedAt !== null))
  const returned = inState('returned')
  const drafts = inState('draft')
  return (
    <View style={{ flex: 1 }}>
      <ScrollView
        contentContainerStyle={{
          padding: 20,
          paddingBottom: 28,
          gap: 20,
          width: '100%',
          maxWidth: 1080,
          alignSelf: 'center',
        }}
      >
        <DeskHead />
        <DeviceWords />
        <OutboxLine />
        <NewsLine news={news.data ?? []} />
        <NoticesFor title={noticeWords.fromTeacher} keepSeen={false} />
        <View
          style={{ flexDirection: tablet ? 'row' : 'column', gap: 24, alignItems: 'flex-start' }}
        >
          <View
            style={{ flex: tablet ? 1 : undefined, width: tablet ? undefined : '100%', gap: 20 }}
          >
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
          </View>
          <View
            style={{ flex: tablet ? 1 : undefined, width: tablet ? undefined : '100%', gap: 20 }}
          >
            {drafts.length > 0 ? (
              <Section title={strings.onTheGo} count={drafts.length}>
                {drafts.map((piece) => (
                  <DraftRow key={piece.id} piece={piece} />
                ))}
              </Section>
            ) : null}
            <TrayCorner pieces={inState('submitted')} />
            <DoneTasks tasks={tasks.data.filter(isDone)} />
          </View>
        </View>
      </ScrollView>
      <MakeShelf />
    </View>
  )
}

/** What the last steps of a piece ask for is on the tablet before its network goes. */
function useNeededAway(): void {
  useFolders()
  useClassmates(true)
}

/** What one should know of this tablet before making something. */
function DeviceWords() {
  const online = useReached()
  const [keeps, setKeeps] = useState(true)
  const outbox = useOutbox()
  useEffect(() => void outbox.keepsWork().then(setKeeps), [outbox])
  const words = [...(online ? [] : [strings.noNetwork]), ...(keeps ? [] : [strings.keepsNothing])]
  return words.map((text) => (
    <Notice key={text} tone="attention" symbol="no-network">
      {text}
    </Notice>
  ))
}

/** Handed in or approved, or said to be done elsewhere: nothing of it waits for the pupil. */
const isDone = (task: Task): boolean =>
  task.myPieces.length > 0
    ? task.myPieces.every(({ state }) => state === 'submitted' || state === 'approved')
    : task.ticked

const DONE_AT_FIRST = 4
function DoneTasks({ tasks }: { tasks: Task[] }) {
  const [all, setAll] = useState(false)
  if (tasks.length === 0) return null
  return (
    <Section title={strings.done} count={tasks.length}>
      {(all ? tasks : tasks.slice(0, DONE_AT_FIRST)).map((task) => (
        <DoneRow key={task.id} task={task} />
      ))}
      {tasks.length > DONE_AT_FIRST && !all ? (
        <BigButton
          tone="quiet"
          symbol="down"
          label={strings.allDone}
          onPress={() => setAll(true)}
        />
      ) : null}
    </Section>
  )
}

function Section({
  title,
  count,
  children,
}: {
  title: string
  count: number
  children: React.ReactNode
}) {
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
  const { tablet } = useWidth()
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
      {tablet ? (
        <BigButton
          tone="quiet"
          symbol="people"
          label={strings.leave}
          onPress={() => setAsking(true)}
        />
      ) : (
        <RoundButton
          label={strings.leave}
          symbol="people"
          onPress={() => setAsking(true)}
          colour={colours.inkSoft}
        />
      )}
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

/**
 * The newest thing that happened, in one line; tapped, it opens the piece. It counts as seen once
 * it has been on screen.
 */
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
