import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { PaperProvider } from 'react-native-paper'
import { theme } from '../kit/theme'

type Answer = { status?: number; body: unknown }
export type Asked = { method: string; path: string; body: unknown }

/**
 * Shows a screen over a server that is not there: `answers` by `METHOD path`, the longest fitting
 * path first; one that is a promise comes when it comes.
 * @returns what was asked
 */
export function show(screen: ReactNode, answers: Record<string, unknown> = {}): Asked[] {
  const asked: Asked[] = []
  globalThis.fetch = (async (address: string, init: RequestInit = {}) => {
    const path = String(address).replace('/api', '')
    const method = init.method ?? 'GET'
    asked.push({
      method,
      path,
      body:
        typeof init.body === 'string' && init.body.startsWith('{')
          ? JSON.parse(init.body)
          : init.body,
    })
    const key = Object.keys(answers)
      .filter((one) => `${method} ${path}`.startsWith(one))
      .sort((a, b) => b.length - a.length)[0]
    const found =
      key === undefined
        ? {
            status: 404,
            body: { type: '/problems/request/not-found', title: 'Nothing here.', status: 404 },
          }
        : asAnswer(await answers[key])
    const { status = 200, body } = found
    return {
      ok: status < 400,
      status,
      headers: new Headers(),
      json: () => Promise.resolve(body),
      text: () => Promise.resolve(JSON.stringify(body)),
    } as Response
  }) as typeof fetch
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false }, mutations: { retry: false } },
  })
  render(
    <QueryClientProvider client={queries}>
      <PaperProvider theme={theme}>{screen}</PaperProvider>
    </QueryClientProvider>,
  )
  return asked
}

const asAnswer = (answer: unknown): Answer =>
  answer !== null && typeof answer === 'object' && 'status' in answer && 'body' in answer
    ? (answer as Answer)
    : { body: answer }

export const ID = (n: number): string => `01890000-0000-7000-8000-${String(n).padStart(12, '0')}`

/** A class of the running year with one pupil, as the school describes it to its teacher. */
export const HERON = {
  id: ID(5),
  name: 'Heron',
  yearGroup: 'Year 3',
  schoolYearId: ID(6),
  yearName: '2026/27',
  running: true,
  pupilCount: 1,
  teachers: [],
  idleMinutes: 10,
  pupilsPropose: false,
  young: false,
  sounds: false,
  hasCards: false,
  hasFamilies: false,
  mine: true,
  version: 1,
}

/** A term, and a book of it that was made for home. */
export const AUTUMN = {
  id: ID(5),
  name: 'Autumn term 2026',
  startsOn: '2026-09-01',
  endsOn: '2026-12-18',
}
export const BOOK = {
  id: ID(7),
  pupilId: ID(1),
  term: AUTUMN,
  state: 'ready',
  pageCount: 4,
  pagesDone: 4,
  requestedAt: '2026-11-01T10:00:00.000Z',
  finishedAt: '2026-11-01T10:00:00.000Z',
  sizeBytes: 200_000,
  openLinks: 2,
  linksEndAt: '2027-12-06T10:00:00.000Z',
  madeFor: 'home',
  marked: false,
  stopped: false,
  byFamily: false,
}
