import { DomainError } from '@nibquill/core'
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
export const rememberViewer = (request: Request, viewer: SignedIn) => void VIEWERS.set(request, viewer)
/** @throws DomainError `accounts/signed-out`, or `request/not-found` for pupils and parents */
export function staff(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role !== 'teacher' && viewer.role !== 'office') throw new DomainError('request/not-found')
  return viewer
}
/** Null when nobody is signed in. */
export const signedIn = (request: Request): SignedIn | null => VIEWERS.get(request) ?? null

/** Reads a request's body, parameters or query as the contract says. @throws ValiError, mapped to `request/invalid` with every fault */
export const read = <S extends v.GenericSchema>(schema: S, input: unknown): v.InferOutput<S> => v.parse(schema, input ?? {})

/** Answers with what the contract promises; the type holds the two together. */
export function answer<S extends v.GenericSchema>(response: Response, _schema: S, body: v.InferInput<S>, status = 200): void {
  response.status(status).json(body)
}
