import type { Piece, SecondLook } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Hint } from '../kit/form'
import { Bar, Stack } from '../kit/layout'
import { sentenceOf } from '../kit/problems'
import { colours, corners, space } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useAskSecondLook, useSecondLooks, useTickSecondLook } from './reviewQueries'
import { t } from './words'

export const useSecondLookOf = (pieceId: string): SecondLook | null =>
  useSecondLooks().data?.find((look) => look.pieceId === pieceId) ?? null

/** Ticks one, which can be taken back. */
export function useTick() {
  const tick = useTickSecondLook()
  const failed = (error: unknown) => toast(sentenceOf(error))
  return ({ pieceId, pupil, title }: Pick<SecondLook, 'pieceId' | 'pupil' | 'title'>) => {
    const undo = () => void tick.mutateAsync({ pieceId, move: 'restore' }).catch(failed)
    // As a promise: the line it was pressed on is gone by then.
    void tick
      .mutateAsync({ pieceId, move: 'done' })
      .then(() => toast(t('secondLookTicked', { name: pupil.firstName, title }), { undo }), failed)
  }
}

/** @returns to be told why */
export function useAskLook({ id: pieceId }: Pick<Piece, 'id'>) {
  const ask = useAskSecondLook()
  return (reason: string) =>
    ask.mutate({ pieceId, reason }, { onError: (error) => toast(sentenceOf(error)) })
}

/** Beside the work: whether a teacher wants to come back to it, and why. */
export function SecondLookBox({ piece, onAsk }: { piece: Piece; onAsk: () => void }) {
  const { whenWasIt } = useWhen()
  const look = useSecondLookOf(piece.id)
  const tick = useTick()
  if (!look)
    return (
      <Bar>
        <BigButton small tone="quiet" symbol="eye" label={t('secondLook')} onPress={onAsk} />
      </Bar>
    )
  return (
    <Stack role="group" aria-label={t('secondLook')} gap="near" style={MARKED}>
      <Text variant="labelMedium" style={{ color: colours.ochreText }}>
        {t('secondLook')}
      </Text>
      <Text variant="bodyMedium">{look.reason}</Text>
      <Hint>{`${look.askedBy}, ${whenWasIt(look.askedAt)}`}</Hint>
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="check"
          label={t('secondLookDone')}
          onPress={() => tick(look)}
        />
        <BigButton small tone="quiet" symbol="edit" label={t('secondLookAgain')} onPress={onAsk} />
      </Bar>
    </Stack>
  )
}
const MARKED = {
  ...{ backgroundColor: colours.ochreTint, borderRadius: corners.button },
  padding: space.apart,
} as const
