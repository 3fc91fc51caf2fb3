import type { PieceLine, Task } from '@nibquill/contract'
import { pendingMove } from '@nibquill/core'
import { router } from 'expo-router'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { sentenceOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Listen } from '../kit/Listen'
import { Press } from '../kit/Press'
import { Progress } from '../kit/Progress'
import { Sheet } from '../parts/Sheet'

import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, pigments, space, stateColours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useWaiting } from '../outbox/OutboxContext'
import { mediaAddress } from '../media/mediaAddress'
import { useAnotherGo, piecesWords } from '../pieces'
import { useRoomy } from './roomy'
import { t } from './words'
import { t as kitWords } from '../kit/words'
import { Bar, Stack, Tile } from '../kit/layout'

/** A strip of card on the desk: tapped, it opens; beside it what can be heard or done at once. */
function Card({
  edge,
  onPress,
  aside,
  stacked = false,
  children,
}: {
  edge: string
  onPress: () => void
  aside?: ReactNode
  /** What is in it stands one under the other. */
  stacked?: boolean
  children: ReactNode
}) {
  return (
    <Tile
      gap="none"
      style={{
        borderLeftWidth: 6,
        borderLeftColor: edge,
        flexDirection: 'row',
        alignItems: 'center',
        padding: 0,
      }}
    >
      <Press
        onPress={onPress}
        style={{
          flex: 1,
          padding: space.apart,
          flexDirection: stacked ? 'column' : 'row',
          alignItems: stacked ? 'flex-start' : 'center',
          gap: space.apart,
          minHeight: targets.pupil + 10,
        }}
      >
        {children}
      </Press>
      {aside}
    </Tile>
  )
}

/** Beside what is said of a piece; large above it where there is room. */
const RowPicture = ({ piece }: { piece: PieceLine }) => (
  <Sheet piece={piece} width={useRoomy() ? 270 : 118} />
)

/** Back from the teacher: what to do next can be read and heard. */
export function ReturnedRow({ piece }: { piece: PieceLine }) {
  const roomy = useRoomy()
  return (
    <Card
      edge={colours.clay}
      stacked={roomy}
      onPress={() => router.push(`/my-pieces/${piece.id}`)}
      aside={
        <Listen
          text={[`${t('anotherGo')}: ${piece.title}.`, piece.message ?? ''].join(' ')}
          recording={piece.voice ? mediaAddress(piece.voice, 'playable') : undefined}
        />
      }
    >
      <RowPicture piece={piece} />
      <Stack gap="hair" style={roomy ? {} : { flex: 1 }}>
        <Text variant="titleMedium">{piece.title}</Text>
        {piece.message ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }} numberOfLines={3}>
            “{piece.message}”
          </Text>
        ) : piece.voice ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
            {t('spokenToYou')}
          </Text>
        ) : null}
      </Stack>
    </Card>
  )
}

/** What to do, in the teacher's own voice. */
const voiceOf = ({ media }: Task): string | undefined => {
  const voice = media.find(({ role }) => role === 'voice')
  return voice && `/api/media/${voice.mediaId}/full`
}

export function TaskRow({ task }: { task: Task }) {
  const { whenIsItDue } = useWhen()
  const due = task.dueAt ? whenIsItDue(task.dueAt) : t('thisWeek')
  return (
    <Card
      edge={pigments[task.folder.colour]}
      onPress={() => router.push(`/my-tasks/${task.id}`)}
      aside={
        <Listen text={`${task.title}. ${task.instructions} ${due}.`} recording={voiceOf(task)} />
      }
    >
      <DrawnSymbol name={task.folder.symbol} size={36} colour={pigments[task.folder.colour]} />
      <View style={{ flex: 1 }}>
        {task.nudgedAt ? (
          <Text variant="labelMedium" style={{ color: colours.ochreText }}>
            {t('reminded')}
          </Text>
        ) : null}
        <Text variant="titleMedium">{task.title}</Text>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {task.folder.name}, {due}
        </Text>
      </View>
      <DrawnSymbol
        name={task.nudgedAt ? 'nudge' : 'camera'}
        size={26}
        colour={task.nudgedAt ? colours.ochreText : colours.inkSoft}
      />
    </Card>
  )
}

/** Done, and kept apart; another go is one tap away. */
export function DoneRow({ task }: { task: Task }) {
  const [newest] = task.myPieces
  const again = useAnotherGo()
  const state = newest?.state
  const look = state ? stateColours[state] : stateColours.draft
  const anotherGo = () => {
    if (state !== 'approved')
      return router.push(newest ? `/my-pieces/${newest.id}` : `/my-tasks/${task.id}`)
    // As a promise: the school may tell of the new go, and the row with it move elsewhere, before
    // it answers.
    void again.mutateAsync(newest!.id).then(
      ({ id }) => router.push(`/my-pieces/${id}`),
      (error: unknown) => toast(sentenceOf(error)),
    )
  }
  return (
    <Card
      edge={look.mark}
      onPress={() => router.push(newest ? `/my-pieces/${newest.id}` : `/my-tasks/${task.id}`)}
      aside={
        // What lies in the tray is taken out first, on its own page.
        state === 'submitted' ? null : (
          <View style={{ paddingRight: 10 }}>
            <BigButton
              small
              tone="quiet"
              symbol="again"
              label={t('anotherGo')}
              busy={again.isPending}
              onPress={anotherGo}
            />
          </View>
        )
      }
    >
      <DrawnSymbol
        name={state === 'approved' ? 'in-folder' : state === 'submitted' ? 'tray' : 'tick'}
        size={26}
        colour={look.text}
      />
      <View style={{ flex: 1 }}>
        <Text variant="titleSmall">{task.title}</Text>
        <Text variant="bodyMedium" style={{ color: look.text }}>
          {state ? kitWords(`states.${state}`) : t('tickedTasks')}
        </Text>
      </View>
    </Card>
  )
}

/** On the go: what is in it may still be on its way. */
export function DraftRow({ piece }: { piece: PieceLine }) {
  const roomy = useRoomy()
  const waiting = useWaiting(piece.id)
  const goesIn = pendingMove(waiting.map(({ intent }) => intent)) === 'hand-in'
  const asked = piece.nudgedAt !== null && !goesIn
  const files = waiting.filter(
    ({ intent, standing }) => intent.kind === 'file' && standing !== 'refused',
  )
  const share = files.length ? files.reduce((sum, file) => sum + file.share, 0) / files.length : 0
  const title = piece.title || piece.task?.title || piecesWords('untitled')
  return (
    <Press
      onPress={() => router.push(`/my-pieces/${piece.id}${goesIn ? '/tray' : ''}`)}
      style={
        roomy
          ? { gap: space.near, alignItems: 'flex-start' }
          : { flexDirection: 'row', gap: space.clear, alignItems: 'center' }
      }
    >
      <RowPicture piece={piece} />
      <Stack gap="hair" style={roomy ? {} : { flex: 1 }}>
        <Text variant="titleMedium">{title}</Text>
        <Bar gap="tight">
          {asked ? <DrawnSymbol name="nudge" size={20} colour={colours.ochreText} /> : null}
          <Text variant="labelMedium" style={{ color: colours.ochreText, flexShrink: 1 }}>
            {t(goesIn ? 'goesInLater' : asked ? 'reminded' : 'notHandedIn')}
          </Text>
        </Bar>
        {files.length > 0 ? (
          <>
            <Text variant="bodyMedium">
              {piecesWords('photosOnTheirWay', { count: files.length, share })}
            </Text>
            <Progress
              share={share}
              label={piecesWords('photosOnTheirWay', { count: files.length, share })}
            />
          </>
        ) : null}
      </Stack>
    </Press>
  )
}
