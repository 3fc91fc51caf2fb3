/// <reference types="node" />
import 'fake-indexeddb/auto'
import type { Piece } from '@nibquill/contract'
import type { Intent, IntentBody } from '@nibquill/core'
import { IDBFactory } from 'fake-indexeddb'
import { deserialize, serialize } from 'node:v8'
import { ProblemError, UnreachableError } from '../kit/problems'
import { Outbox, type Send } from './outbox'
import { Asks } from './senders'
import { OutboxStore } from './store'

globalThis.structuredClone ??= <T>(value: T): T => deserialize(serialize(value)) as T
globalThis.URL.createObjectURL ??= () => 'blob:here'
globalThis.URL.revokeObjectURL ??= () => undefined

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
})

const HANDED_IN = { id: 'piece' } as Piece
const refusal = (status: number, code: string) =>
  new ProblemError({ type: `/problems/${code}`, title: 'In the words of the API.', status })

/** An outbox before a school that answers as the test says. */
function open(send: (intent: Intent) => Promise<Piece | null>, store = new OutboxStore()) {
  const asked: string[] = []
  const pieces: Piece[] = []
  const answering: Send = (intent) => {
    asked.push('partId' in intent ? `${intent.kind} ${intent.partId}` : intent.kind)
    return send(intent)
  }
  const outbox = new Outbox(
    store,
    {
      onPiece: (piece) => pieces.push(piece),
      onBinned: () => undefined,
      onFailed: () => undefined,
    },
    { send: answering, turn: (work) => work() },
  )
  const want = (...bodies: IntentBody[]) => outbox.want('wren', 'piece', bodies)
  const quiet = () =>
    until(() => outbox.getSnapshot().every(({ standing }) => standing !== 'sending'))
  return { outbox, asked, pieces, want, quiet, store }
}
async function until(holds: () => boolean): Promise<void> {
  for (let i = 0; i < 200; i++) {
    await new Promise((resolve) => setTimeout(resolve, 5))
    if (holds()) return
  }
  throw new Error('it never came')
}
const ok = () => Promise.resolve(HANDED_IN)
const away = () => Promise.reject(new UnreachableError('away'))
const words = (title: string) =>
  ({ title, reflection: '', step: 'finished', folderId: null }) as const
const wrote = (title: string): IntentBody => ({
  kind: 'words',
  words: words(title),
  base: words(''),
})
const START: IntentBody = { kind: 'start', taskId: null }

test('everything is brought in an order that fits, one thing of a piece at a time', async () => {
  let busy = 0
  const { outbox, asked, want } = open(async () => {
    expect(busy++).toBe(0)
    await new Promise((resolve) => setTimeout(resolve, 2))
    busy--
    return HANDED_IN
  })
  await want(START, wrote('Crab'), { kind: 'hand-in' })
  await until(() => outbox.getSnapshot().length === 0)
  expect(asked).toEqual(['start', 'words', 'hand-in'])
})

test('kept before it is sent: a page that goes loses nothing, the next one goes on', async () => {
  const first = open(away)
  await first.want(START, wrote('Crab'))
  expect(first.outbox.getSnapshot().every(({ kept }) => kept)).toBe(true)
  await first.quiet()
  first.outbox.clear()
  const next = open(ok)
  await next.outbox.restore('wren', new AbortController().signal)
  await until(() => next.outbox.getSnapshot().length === 0)
  expect(next.asked).toEqual(['start', 'words'])
  expect(await next.store.list('wren')).toEqual([])
})

test('a pupil who left is not brought back into memory', async () => {
  const first = open(away)
  await first.want(START)
  first.outbox.clear()
  const gone = new AbortController()
  gone.abort()
  const next = open(ok)
  await next.outbox.restore('wren', gone.signal)
  expect(next.outbox.getSnapshot()).toEqual([])
})

test('what did not get through says so, waits, and is tried again when asked', async () => {
  let there = false
  const { outbox, want, quiet } = open(() => (there ? ok() : away()))
  await want(START)
  await quiet()
  expect(outbox.getSnapshot()).toMatchObject([
    { standing: 'stuck', sentence: 'It is safe on this tablet and waits for the network.' },
  ])
  there = true
  outbox.retry()
  await until(() => outbox.getSnapshot().length === 0)
})

test.each([
  {
    what: 'the school’s own bad moment',
    error: refusal(503, 'service/away'),
    says: /cannot take it/,
  },
  { what: 'a session that ended', error: refusal(401, 'accounts/signed-out'), says: /your card/ },
  { what: 'a school without room', error: refusal(507, 'media/no-room'), says: /no room left/ },
])('$what passes', async ({ error, says }) => {
  const { outbox, want, quiet } = open(() => Promise.reject(error))
  await want(START)
  await quiet()
  const [line] = outbox.getSnapshot()
  expect(line).toMatchObject({ standing: 'stuck' })
  expect(line!.sentence).toMatch(says)
})

test('a refusal stays, holds up what hangs on it, and goes when the pupil has seen it', async () => {
  const { outbox, asked, want, quiet } = open((intent) =>
    intent.kind === 'hand-in' ? Promise.reject(refusal(409, 'folder/put-away')) : ok(),
  )
  await want(wrote('Crab'), { kind: 'hand-in' })
  await until(() => outbox.getSnapshot().some(({ standing }) => standing === 'refused'))
  await quiet()
  const [line] = outbox.getSnapshot()
  expect(line).toMatchObject({
    intent: { kind: 'hand-in' },
    sentence: expect.stringMatching(/folder has been put away/),
  })
  outbox.retry()
  expect(asked.filter((kind) => kind === 'hand-in')).toHaveLength(1)
  await outbox.forget([line!.id])
  expect(outbox.getSnapshot()).toEqual([])
})

test('what was refused is mended by doing it otherwise: another folder, and it goes', async () => {
  const { outbox, want, quiet, pieces } = open((intent) =>
    intent.kind === 'words' && intent.words.folderId === null
      ? Promise.reject(refusal(404, 'folder/not-found'))
      : ok(),
  )
  await want(wrote('Crab'))
  await quiet()
  expect(outbox.getSnapshot()).toMatchObject([{ standing: 'refused' }])
  await want({ kind: 'words', words: { ...words('Crab'), folderId: 'f' }, base: words('Crab') })
  await until(() => outbox.getSnapshot().length === 0)
  expect(pieces).toHaveLength(1)
})

test('where two tablets differ the pupil is asked, and what they say is sent', async () => {
  const sent: Intent[] = []
  const { outbox, want, quiet } = open((intent) => {
    sent.push(intent)
    return sent.length === 1
      ? Promise.reject(new Asks({ words: words('theirs') }))
      : Promise.resolve(HANDED_IN)
  })
  await want(wrote('mine'), { kind: 'hand-in' })
  await quiet()
  const [line] = outbox.getSnapshot()
  expect(line).toMatchObject({ standing: 'asks', theirs: { words: { title: 'theirs' } } })
  // Nothing goes into the tray while somebody is asked.
  expect(sent).toHaveLength(1)
  await outbox.choose(line!.id, 'mine')
  await until(() => outbox.getSnapshot().length === 0)
  expect(sent[1]).toMatchObject({ words: { title: 'mine' }, base: { title: 'theirs' } })
})

test('what was tried once is not merged into: its answer may have been lost', async () => {
  const { outbox, want, quiet } = open(away)
  await want(wrote('a'))
  await quiet()
  await want(wrote('ab'))
  expect(outbox.getSnapshot().map(({ intent }) => intent)).toMatchObject([
    { words: { title: 'a' } },
    { words: { title: 'ab' }, base: { title: 'a' } },
  ])
})

test('a tablet that keeps nothing says of each thing that it is not kept, and sends it all the same', async () => {
  const store = new OutboxStore()
  store.write = () => Promise.reject(new Error('full'))
  let let_through = false
  const { outbox, want } = open(() => (let_through ? ok() : away()), store)
  await want(START)
  expect(outbox.getSnapshot()).toMatchObject([{ kept: false }])
  await expect(
    Promise.race([outbox.settle(), Promise.reject(new Error('waits'))]),
  ).rejects.toThrow()
  let_through = true
  outbox.retry()
  await until(() => outbox.getSnapshot().length === 0)
})

test('the answer of somebody who left is not shown', async () => {
  let answer: (piece: Piece) => void = () => undefined
  const { outbox, pieces, want } = open(() => new Promise((resolve) => (answer = resolve)))
  await want(START)
  outbox.clear()
  answer(HANDED_IN)
  await new Promise((resolve) => setTimeout(resolve, 10))
  expect(pieces).toEqual([])
})
