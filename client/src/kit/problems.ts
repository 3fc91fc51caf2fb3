import { Problem } from '@nibquill/contract'
import * as v from 'valibot'
import { codeIn, refusalIn, sentence } from './refusals'
import { t } from './words'

/** A refusal of the server, with its stable code. */
export class ProblemError extends Error {
  readonly problem: Problem
  constructor(problem: Problem) {
    super(refusalIn(problem))
    this.problem = problem
  }
  /** For example `piece/stale`. */
  get code(): string {
    return codeIn(this.problem)
  }
}

/** The network failed, or something between us and the server answered instead of it. */
export class UnreachableError extends Error {}

export async function problemFrom(response: Response): Promise<Error> {
  const parsed = v.safeParse(Problem, await response.json().catch(() => null))
  return parsed.success ? new ProblemError(parsed.output) : new UnreachableError(t('unreachable'))
}

/** A sentence for a person, whatever went wrong. */
export function sentenceOf(error: unknown): string {
  if (error instanceof ProblemError) {
    const fields = Object.values(error.problem.fields ?? {}).flat()
    return [error.message, ...fields.map(sentence)].join(' ')
  }
  return t('unreachable')
}

export const codeOf = (error: unknown): string | null =>
  error instanceof ProblemError ? error.code : null

/** What a refusal says beside its code. */
export const detailsOf = (error: unknown): Record<string, unknown> =>
  error instanceof ProblemError ? error.problem : {}

/** Forbidden, not there, there no more. @see RFC 9110, section 15.5 */
const REFUSED = [403, 404, 410]
/**
 * Whether the school said no, rather than that it could not be asked, had trouble itself or wants
 * the card first (whoever is signed out is led to the door).
 */
export const isRefusal = (error: unknown): boolean =>
  error instanceof ProblemError && REFUSED.includes(error.problem.status)
