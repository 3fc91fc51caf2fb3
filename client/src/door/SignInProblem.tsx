import { ProblemError, sentenceOf } from '../kit/problems'
import { Notice } from '../kit/Notice'
import { accountsStrings as strings } from '../accounts'

/** Why somebody is not in, and when to try again. */
export function SignInProblem({ error }: { error: Error }) {
  const seconds = error instanceof ProblemError ? Number(error.problem.retryAfterSeconds ?? 0) : 0
  return (
    <Notice tone="again" symbol="alert">
      {sentenceOf(error) + (seconds ? ` ${strings.tooManyTries(seconds)}` : '')}
    </Notice>
  )
}
