import type { PieceLine } from '@nibquill/contract'
import { inTasks } from '@nibquill/core/pieces/inTasks'
import { useWhen } from '../kit/useWhen'
import { Grid, Heading, Stack } from '../kit/layout'
import { t as kitWords } from '../kit/words'
import { PieceTile } from '../parts/PieceTile'
import { t } from './words'

/** How what lies in a folder is laid out; without one, newest on top. */
export const LAYINGS = ['newest', 'task'] as const
export type Laying = (typeof LAYINGS)[number]

type Props = { pieces: readonly PieceLine[]; onOpen: (piece: PieceLine) => void }

/** What lies in a folder, newest on top. @param withNames - Whose each is, instead of when. */
export function NewestFirst({ pieces, onOpen, withNames }: Props & { withNames: boolean }) {
  const { whenWasIt } = useWhen()
  return (
    <Grid>
      {pieces.map((piece) => (
        <PieceTile
          key={piece.id}
          piece={piece}
          onPress={() => onOpen(piece)}
          under={
            withNames
              ? `${piece.pupil.firstName} ${piece.pupil.lastName}`
              : whenWasIt(lastMoved(piece))
          }
        />
      ))}
    </Grid>
  )
}

/** By task, and within a task step by step. */
export function ByTask({ pieces, onOpen }: Props) {
  const { whenWasIt } = useWhen()
  return inTasks(pieces).map(({ id, pieces: together }) => (
    <Stack key={id} gap="near">
      <Heading level={2}>{together[0]!.task?.title ?? t('ofNoTask')}</Heading>
      <Grid>
        {together.map((piece) => (
          <PieceTile
            key={piece.id}
            piece={piece}
            onPress={() => onOpen(piece)}
            under={`${kitWords(`stepNames.${piece.step}`)} · ${whenWasIt(lastMoved(piece))}`}
          />
        ))}
      </Grid>
    </Stack>
  ))
}

const lastMoved = ({ submittedAt, changedAt }: PieceLine) => submittedAt ?? changedAt
