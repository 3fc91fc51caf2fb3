import { DomainError, fault } from '@nibquill/core'
import type { Request, Response } from 'express'
import * as v from 'valibot'

/** Who asks, as found by the session middleware. */
export type SignedIn = {
  sessionId: string
  personId: string
  role: 'pupil' | 'teacher' | 'parent' | 'office'
  schoolId: string
  /** Sets up and oversees the whole school. */
  leads: boolean
}

const VIEWERS = new WeakMap<Request, SignedIn>()
export const rememberViewer = (request: Request, viewer: SignedIn) =>
  void VIEWERS.set(request, viewer)
/** @throws DomainError `accounts/signed-out`, or `request/not-found` for pupils and parents */
export function staff(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role !== 'teacher' && viewer.role !== 'office')
    throw new DomainError('request/not-found')
  return viewer
}
/** Null when nobody is signed in. */
export const signedIn = (request: Request): SignedIn | null => VIEWERS.get(request) ?? null

/**
 * Reads a request's body, parameters or query as the contract says.
 * @throws ValiError, mapped to `request/invalid` with every fault
 */
export function read<S extends v.GenericSchema>(schema: S, input: unknown): v.InferOutput<S> {
  const found = v.parse(schema, input ?? {})
  refuseNul(input, '')
  return found
}

/**
 * PostgreSQL keeps no NUL in a text, wherever in a request it stands.
 * @throws DomainError `request/invalid` with the field
 */
function refuseNul(input: unknown, path: string): void {
  if (typeof input === 'string' && input.includes('\u0000'))
    throw new DomainError('request/invalid', {
      fields: { [path]: [fault('unkeepable')] },
    })
  if (typeof input === 'object' && input !== null)
    for (const [key, value] of Object.entries(input))
      refuseNul(value, path ? `${path}.${key}` : key)
}

/**
 * Answers with what the contract promises and with nothing else: fields it does not name are left
 * out, so that a column added to a query
 * goes nowhere by itself. Tests also fail on those.
 * @throws Error when something is missing or of another kind, which is a defect of ours
 */
export function answer<S extends v.GenericSchema>(
  response: Response,
  schema: S,
  body: v.InferInput<S>,
  status = 200,
): void {
  const promised = v.safeParse(schema, body)
  if (!promised.success)
    throw new Error(
      `an answer breaks its contract at ${promised.issues.map((issue) => v.getDotPath(issue) ?? 'the top').join(', ')}`,
    )
  if (process.env.NIBQUILL_STRICT_ANSWERS) refuseExtra(body, promised.output, 'the answer')
  response.status(status).json(promised.output)
}

/** @throws Error naming the first field that the contract did not keep */
function refuseExtra(given: unknown, kept: unknown, path: string): void {
  if (typeof given !== 'object' || given === null || typeof kept !== 'object' || kept === null)
    return
  for (const [key, value] of Object.entries(given)) {
    if (value !== undefined && !(key in kept))
      throw new Error(`${path} has a field its contract does not name: ${key}`)
    refuseExtra(value, (kept as Record<string, unknown>)[key], `${path}.${key}`)
  }
}
