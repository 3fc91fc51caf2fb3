import type { Piece } from '@nibquill/contract'
import { lastStepsOf, stepAfter, type LastStep as Step } from '@nibquill/core'
import { router } from 'expo-router'
import { useRef, type ReactNode } from 'react'
import { View } from 'react-native'
import { useSession } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Page } from '../kit/layout'
import { useTasks } from '../tasks'
import { MakeHead } from './MakeHead'
import { t } from './words'

/** Whether one's class taps pictures instead of typing. */
export const useYoung = (): boolean => useSession().data?.person?.young ?? false

/** Leads to what is asked next: the first of the last steps after making itself. */
export function useGoOnAfter() {
  const young = useYoung()
  return (step: Step | 'making', pieceId: string, task: { asksThoughts: boolean } | null): void =>
    router.push(`/my-pieces/${pieceId}/${stepAfter(step, task, young)}`)
}

/**
 * From what was made to the first of the last steps. Before the school has told of the piece, the
 * task itself says what it asks for.
 */
export function useGoOnFromMaking(
  pieceId: string,
  piece: Piece | null,
  taskId: string | null | undefined,
): () => void {
  const goOnAfter = useGoOnAfter()
  const task = useTasks().data?.find(({ id }) => id === taskId) ?? null
  return () => goOnAfter('making', pieceId, piece?.task ?? task)
}

/** One of the last steps: one question, and one way on at the foot. */
export function LastStep({
  piece,
  step,
  save,
  children,
}: {
  piece: Piece
  step: Exclude<Step, 'tray'>
  /** Keeps what was typed before one goes on. */
  save: () => Promise<unknown>
  children: ReactNode
}) {
  const going = useRef(false)
  const goOnAfter = useGoOnAfter()
  const place = usePlaceOf(step, piece.task)
  // A child taps twice: the second tap must not go on twice.
  const goOn = async () => {
    if (going.current) return
    going.current = true
    try {
      await save()
      goOnAfter(step, piece.id, piece.task)
    } catch {
      // What went wrong stands on the screen; the words stay where they are.
    } finally {
      going.current = false
    }
  }
  return (
    <View style={{ flex: 1 }}>
      <MakeHead title={t(`stepTitles.${step}`)} step={place} />
      <Page foot={<BigButton label={t('goOn')} symbol="forward" onPress={() => void goOn()} />}>
        {children}
      </Page>
    </View>
  )
}

/** Nothing to count where a step is taken beside the others. */
export function usePlaceOf(step: Step, task: Piece['task']) {
  const steps = lastStepsOf(task, useYoung())
  const number = steps.indexOf(step) + 1
  return number > 0 ? { number, of: steps.length } : undefined
}
