import {
  DOMAIN_ERRORS,
  DomainError,
  type DomainErrorCode,
  fault,
  readFault,
  type Fault,
} from '@nibquill/core'
import type { Problem } from '@nibquill/contract'
import type { ErrorRequestHandler, Response } from 'express'
import * as v from 'valibot'
import { routeOf, type Log } from './log.ts'

/** A new code without a status does not compile. */
const STATUS = {
  'accounts/signed-out': 401,
  'accounts/card-unknown': 401,
  'accounts/password-wrong': 401,
  'accounts/too-many-tries': 429,
  'accounts/invitation-over': 410,
  'accounts/already-set-up': 409,
  'accounts/password-link-over': 410,
  'accounts/no-cards': 409,
  'accounts/cards-not-ready': 409,
  'accounts/email-taken': 409,
  'accounts/door-shut': 403,
  'accounts/door-elsewhere': 403,
  'accounts/too-many-tablets': 409,
  'accounts/no-tablet': 401,
  'accounts/no-secret-yet': 409,
  'accounts/secret-wrong': 401,
  'accounts/code-needed': 401,
  'accounts/code-wrong': 401,
  'accounts/codes-already-on': 409,
  'accounts/mail-code-wrong': 401,
  'accounts/origin-refused': 403,
  'request/invalid': 400,
  'request/too-large': 413,
  'request/not-found': 404,
  'school/year-in-use': 409,
  'school/years-overlap': 409,
  'school/stale': 409,
  'school/list-unreadable': 415,
  'school/class-overfull': 409,
  'school/list-lived': 409,
  'school/list-used': 409,
  'school/no-lead': 409,
  'school/pegs-full': 409,
  'school/roll-over-refused': 409,
  'school/roll-over-final': 409,
  'piece/not-found': 404,
  'piece/stale': 409,
  'piece/move-refused': 409,
  'piece/empty': 409,
  'piece/full': 409,
  'piece/not-open': 409,
  'piece/closed': 409,
  'piece/part-changed': 409,
  'piece/drawing-full': 409,
  'piece/part-gone': 409,
  'piece/not-together': 422,
  'piece/not-a-classmate': 422,
  'piece/decided-earlier': 409,
  'piece/in-folder': 409,
  'piece/marked-already': 409,
  'comment/not-found': 404,
  'comment/decided-already': 409,
  'comment/too-many': 409,
  'comment/too-many-waiting': 429,
  'comment/not-for-you': 422,
  'folder/not-found': 404,
  'folder/put-away': 409,
  'folder/stale': 409,
  'folder/shared': 403,
  'folder/fixed': 409,
  'task/stale': 409,
  'task/closed': 409,
  'task/not-found': 404,
  'media/not-found': 404,
  'media/empty': 422,
  'media/not-opened': 415,
  'media/not-for-pieces': 415,
  'media/unreadable': 422,
  'media/too-large': 413,
  'media/film-too-long': 422,
  'media/too-many-pixels': 422,
  'media/differs': 422,
  'media/id-taken': 409,
  'media/file-unreadable': 422,
  'media/no-such-page': 404,
  'media/ink-unreadable': 422,
  'media/not-taken': 415,
  'media/arrived-already': 409,
  'media/too-many-uploads': 429,
  'media/no-room': 507,
  'tidy/corners-cross': 422,
  'portfolio/not-approved': 409,
  'portfolio/no-term': 409,
  'book/nothing-to-print': 409,
  'book/not-ready': 409,
  'book/not-for-home': 409,
  'sharing/no-letters': 409,
  'sharing/no-address': 409,
  'sharing/link-for-school': 403,
  'sharing/link-over': 410,
  'live/too-many': 429,
  'service/unavailable': 503,
  'service/unexpected': 500,
} as const satisfies Record<DomainErrorCode, number>

/** One refusal as RFC 9457 writes it. */
export function problemOf(error: unknown): Problem {
  const { code, details } = asDomainError(error)
  return { type: `/problems/${code}`, title: DOMAIN_ERRORS[code], status: STATUS[code], ...details }
}

/**
 * The one place that knows both rules and HTTP. Nothing of the database or the stack leaves here.
 */
export function problemHandler(log: Log): ErrorRequestHandler {
  // Four arguments, or Express takes it for a handler of requests.
  return (error: unknown, request, response, _next) => {
    // An answer that has begun cannot become another: the connection ends, and the browser knows
    // that something is missing.
    if (response.headersSent) return void response.destroy()
    try {
      const problem = problemOf(error)
      if (problem.status >= 500)
        log.error(
          {
            error: String(error),
            stack: error instanceof Error ? error.stack : '',
            route: routeOf(request),
          },
          'failed',
        )
      if (typeof problem.retryAfterSeconds === 'number')
        response.set('Retry-After', String(problem.retryAfterSeconds))
      answerProblem(response, problem)
    } catch (worse) {
      log.error({ error: String(worse), route: routeOf(request) }, 'failed while saying so')
      answerProblem(response, problemOf(null))
    }
  }
}

function answerProblem(response: Response, problem: Problem): void {
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
}

function asDomainError(error: unknown): {
  code: DomainErrorCode
  details: Record<string, unknown>
} {
  if (error instanceof DomainError) return error
  if (v.isValiError(error)) return { code: 'request/invalid', details: { fields: fieldsOf(error) } }
  if (isAway(error)) return { code: 'service/unavailable', details: { retryAfterSeconds: 5 } }
  const { status, code } = (error ?? {}) as { status?: number; code?: string }
  if (code === 'ENOSPC' || code === 'EDQUOT') return { code: 'media/no-room', details: {} }
  if (status === 413) return { code: 'request/too-large', details: {} }
  if (status === 404) return { code: 'request/not-found', details: {} }
  if (status && status >= 400 && status < 500) return { code: 'request/invalid', details: {} }
  return { code: 'service/unexpected', details: {} }
}

function fieldsOf(error: { issues: readonly v.BaseIssue<unknown>[] }): Record<string, Fault[]> {
  // Without a prototype: a field may be called `constructor`.
  const fields = Object.create(null) as Record<string, Fault[]>
  for (const issue of error.issues) {
    const path = v.getDotPath(issue) ?? ''
    fields[path] = [...(fields[path] ?? []), faultOf(issue)]
  }
  return fields
}

/** The contract names its own faults; of Valibot's, the sentences that a person could act on. */
function faultOf({ message, type, requirement, input }: v.BaseIssue<unknown>): Fault {
  const { code, limit } = readFault(message)
  if (code !== 'unusable') return fault(code, message.includes(':') ? limit : undefined)
  if (type === 'max_length' && typeof input === 'string')
    return fault('too-long', Number(requirement))
  return 'unusable'
}

/**
 * The database is not there: refused or broken connections, and PostgreSQL's own words for stopping
 * and starting (class 57P, 08).
 */
function isAway(error: unknown): boolean {
  const { code, message, errors } = (error ?? {}) as {
    code?: string
    message?: string
    errors?: unknown[]
  }
  if (errors?.some(isAway)) return true
  return (
    /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|55000|57014|57P0\d|08\w{3}|53300)$/.test(
      code ?? '',
    ) ||
    /Connection terminated|timeout exceeded when trying to connect|not queryable|Query read timeout|statement timeout|Driver not Connected/.test(
      message ?? '',
    )
  )
}
