import * as v from 'valibot'
import { fetchFacesFor } from '../device/faces'
import { noteReached } from '../device/network'
import { heedServerClock } from '../kit/clock'
import { problemFrom, UnreachableError } from '../kit/problems'

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'

/**
 * Asks the server and holds the answer to the contract.
 * @throws ProblemError for a refusal, UnreachableError when no answer of ours came back
 */
async function request<S extends v.GenericSchema>(
  method: Method,
  path: string,
  schema: S,
  body?: unknown,
  signal?: AbortSignal,
): Promise<v.InferOutput<S>> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal,
      credentials: 'same-origin',
      ...(body === undefined
        ? {}
        : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
    })
  } catch (error) {
    if (signal?.aborted) throw error
    noteReached(false)
    throw new UnreachableError(String(error))
  }
  noteReached(true)
  heedServerClock(response.headers.get('Date'))
  if (!response.ok) throw await problemFrom(response)
  const parsed = v.safeParse(schema, await readJson(response))
  // A proxy's own page, or a server of another version.
  if (!parsed.success) throw new UnreachableError(`unexpected answer from ${path}`)
  return parsed.output
}

/** @returns null for what is no JSON */
async function readJson(response: Response): Promise<unknown> {
  try {
    const text = await response.text()
    fetchFacesFor(text)
    return JSON.parse(text)
  } catch {
    return null
  }
}

let changes = 0
/** Whether something this page does is not answered yet. */
export const changesOnTheirWay = (): boolean => changes > 0

const change: typeof request = async (...asked) => {
  changes += 1
  try {
    return await request(...asked)
  } finally {
    changes -= 1
  }
}

export const api = {
  get: <S extends v.GenericSchema>(path: string, schema: S, signal?: AbortSignal) =>
    request('GET', path, schema, undefined, signal),
  post: <S extends v.GenericSchema>(path: string, schema: S, body: unknown = {}) =>
    change('POST', path, schema, body),
  put: <S extends v.GenericSchema>(path: string, schema: S, body: unknown = {}) =>
    change('PUT', path, schema, body),
  patch: <S extends v.GenericSchema>(path: string, schema: S, body: unknown = {}) =>
    change('PATCH', path, schema, body),
  remove: <S extends v.GenericSchema>(path: string, schema: S) => change('DELETE', path, schema),
}
