import { ProblemError, sentenceOf } from '../kit/problems'
import { Notice } from '../kit/Notice'
import { t } from './words'

/** Why somebody is not in, and when to try again. */
export function SignInProblem({ error }: { error: Error }) {
  const seconds = error instanceof ProblemError ? Number(error.problem.retryAfterSeconds ?? 0) : 0
  return (
    <Notice tone="again" symbol="alert">
      {sentenceOf(error) + (seconds ? ` ${tryAgainIn(seconds)}` : '')}
    </Notice>
  )
}

export function tryAgainIn(seconds: number): string {
  const minutes = Math.ceil(seconds / 60)
  return minutes > 1 ? t('tryInMinutes', { minutes }) : t('tryInSeconds', { seconds })
}
