import { Problem } from '@nibquill/contract'
import * as v from 'valibot'
import { strings } from './strings'

/** A refusal of the server, with its stable code. */
export class ProblemError extends Error {
  readonly problem: Problem
  constructor(problem: Problem) {
    super(problem.title)
    this.problem = problem
  }
  /** For example `piece/stale`. */
  get code(): string {
    return this.problem.type.replace('/problems/', '')
  }
}

/** The network failed, or something between us and the server answered instead of it. */
export class UnreachableError extends Error {}

export async function problemFrom(response: Response): Promise<Error> {
  const parsed = v.safeParse(Problem, await response.json().catch(() => null))
  return parsed.success
    ? new ProblemError(parsed.output)
    : new UnreachableError(strings.unreachable)
}

/** A sentence for a person, whatever went wrong. */
export function sentenceOf(error: unknown): string {
  if (error instanceof ProblemError) {
    const fields = Object.values(error.problem.fields ?? {}).flat()
    return fields.length > 0
      ? `${error.problem.title} ${fields.map((text) => `It ${text}.`).join(' ')}`
      : error.problem.title
  }
  return strings.unreachable
}

export const codeOf = (error: unknown): string | null =>
  error instanceof ProblemError ? error.code : null

/** Forbidden, not there, there no more. @see RFC 9110, section 15.5 */
const REFUSED = [403, 404, 410]
/**
 * Whether the school said no, rather than that it could not be asked, had trouble itself or wants
 * the card first (whoever is signed out is led to the door).
 */
export const isRefusal = (error: unknown): boolean =>
  error instanceof ProblemError && REFUSED.includes(error.problem.status)
