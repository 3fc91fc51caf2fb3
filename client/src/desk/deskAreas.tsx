import type { PieceLine, Task } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { TrayDrawing } from '../kit/FolderDrawing'
import { Bar } from '../kit/layout'
import { Press } from '../kit/Press'
import { colours, space, targets } from '../kit/theme'
import { NoticesFor } from '../notices'
import { Sheet } from '../parts/Sheet'
import type { Area } from './Columns'
import { DoneRow, DraftRow, ReturnedRow, TaskRow } from './DeskRows'
import { useRoomy } from './roomy'
import { Section } from './Section'
import { higherPart, splitInTwo } from './splitInTwo'
import { t } from './words'

/** How large the pictures of pieces lie there. */
export type PieceSize = 'small' | 'large'
type OnDesk = {
  shown: readonly PieceLine[]
  tasks: readonly Task[]
  /** How many notices were not seen yet. */
  said: number
}

export const inState = (pieces: readonly PieceLine[], state: PieceLine['state']): PieceLine[] =>
  pieces.filter((piece) => piece.state === state)

/** What a teacher asks for lies on top. */
const nudgedFirst = <T extends { nudgedAt: string | null }>(all: readonly T[]): T[] =>
  [...all].sort((a, b) => Number(b.nudgedAt !== null) - Number(a.nudgedAt !== null))

/** What lies on a desk, in its order; each area with about how high it is. */
export function deskAreas({ shown, tasks, said }: OnDesk, size: PieceSize): Area[] {
  const toDo = nudgedFirst(tasks.filter((task) => task.myPieces.length === 0 && !task.ticked))
  const returned = inState(shown, 'returned')
  const drafts = nudgedFirst(inState(shown, 'draft'))
  const inTray = inState(shown, 'submitted')
  const done = tasks.filter(isDone)
  const piecePx = size === 'large' ? ROW_PX.largePiece : ROW_PX.piece
  return [
    returned.length > 0 && {
      name: 'another-go',
      heightPx: heightOf(returned.length, piecePx),
      area: (
        <Section title={t('anotherGo')} count={returned.length}>
          {returned.map((piece) => (
            <ReturnedRow key={piece.id} piece={piece} />
          ))}
        </Section>
      ),
    },
    said > 0 && {
      name: 'from-teacher',
      heightPx: heightOf(said, ROW_PX.piece),
      area: <NoticesFor title={t('fromTeacher')} keepSeen={false} />,
    },
    { name: 'to-do', heightPx: heightOf(toDo.length, ROW_PX.task), area: <ToDo tasks={toDo} /> },
    drafts.length > 0 && {
      name: 'on-the-go',
      heightPx: heightOf(drafts.length, piecePx),
      area: (
        <Section title={t('onTheGo')} count={drafts.length}>
          {drafts.map((piece) => (
            <DraftRow key={piece.id} piece={piece} />
          ))}
        </Section>
      ),
    },
    {
      name: 'tray',
      heightPx: heightOf(inTray.length + 1, ROW_PX.task),
      area: <TrayCorner pieces={inTray} />,
    },
    done.length > 0 && {
      name: 'done',
      heightPx: heightOf(Math.min(done.length, DONE_AT_FIRST), ROW_PX.task),
      area: <DoneTasks tasks={done} />,
    },
  ].filter((area) => area !== false)
}

/** About how high a row is, of pieces and of tasks, and what stands above the rows of an area. */
const ROW_PX = { piece: 122, largePiece: 330, task: 100, head: 60 }
/** Whether areas in two columns need no scrolling. */
export const fits = (areas: readonly Area[], roomPx: number): boolean => {
  const heights = areas.map(({ heightPx }) => heightPx)
  return higherPart(heights, splitInTwo(heights)) <= roomPx
}
const heightOf = (rows: number, rowPx: number) => ROW_PX.head + Math.max(1, rows) * rowPx

function ToDo({ tasks }: { tasks: Task[] }) {
  return (
    <Section title={t('toDo')} count={tasks.length}>
      {tasks.map((task) => (
        <TaskRow key={task.id} task={task} />
      ))}
      {tasks.length === 0 ? (
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {t('nothingToDo')}
        </Text>
      ) : null}
    </Section>
  )
}

/** In its folder, or said to be done elsewhere. What lies in the tray stands there, once. */
const isDone = (task: Task): boolean =>
  task.myPieces.length > 0 ? task.myPieces.every(({ state }) => state === 'approved') : task.ticked

const DONE_AT_FIRST = 4
function DoneTasks({ tasks }: { tasks: Task[] }) {
  const [all, setAll] = useState(false)
  if (tasks.length === 0) return null
  return (
    <Section title={t('done')} count={tasks.length}>
      {(all ? tasks : tasks.slice(0, DONE_AT_FIRST)).map((task) => (
        <DoneRow key={task.id} task={task} />
      ))}
      {tasks.length > DONE_AT_FIRST && !all ? (
        <BigButton tone="quiet" symbol="down" label={t('allDone')} onPress={() => setAll(true)} />
      ) : null}
    </Section>
  )
}

function TrayCorner({ pieces }: { pieces: PieceLine[] }) {
  const roomy = useRoomy()
  return (
    <Section title={t('inTheTray')} count={pieces.length}>
      <Bar gap="clear">
        <TrayDrawing count={pieces.length} width={roomy ? 130 : 92} />
        <Text variant="bodyLarge" style={{ flex: 1, color: colours.inkSoft }}>
          {t('trayWaits', { count: pieces.length })}
        </Text>
      </Bar>
      {pieces.map((piece) => (
        <Press
          key={piece.id}
          onPress={() => router.push(`/my-pieces/${piece.id}`)}
          style={{
            flexDirection: 'row',
            gap: space.clear,
            alignItems: 'center',
            minHeight: targets.pupil,
          }}
        >
          <Sheet piece={piece} width={roomy ? 130 : 84} />
          <Text variant="titleSmall" style={{ flex: 1 }}>
            {piece.title}
          </Text>
        </Press>
      ))}
    </Section>
  )
}
