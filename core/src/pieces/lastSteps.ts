/** What is asked after making: what it is, what its pupil thinks of it, and into the tray. */
export const LAST_STEPS = ['what', 'thoughts', 'tray'] as const
export type LastStep = (typeof LAST_STEPS)[number]

/**
 * The last steps of a piece, in order: a task has named the work, and settles whether thoughts are
 * asked for; what nobody asks for can still be said from the last one.
 * @param task - Null for what a pupil makes of their own accord.
 * @param young - Whether the class taps pictures: there a suggestion names the work.
 */
export const lastStepsOf = (
  task: { asksThoughts: boolean } | null,
  young = false,
): readonly LastStep[] => {
  const named = task !== null || young
  const thoughts = task?.asksThoughts ?? true
  return LAST_STEPS.filter((step) => step === 'tray' || (step === 'what' ? !named : thoughts))
}

/** The step after this one; the first of them after making itself. */
export function stepAfter(
  step: LastStep | 'making',
  task: { asksThoughts: boolean } | null,
  young = false,
): LastStep {
  const steps = lastStepsOf(task, young)
  const at = LAST_STEPS.indexOf(step as LastStep)
  return steps.find((one) => LAST_STEPS.indexOf(one) > at) ?? 'tray'
}
