import type { Response } from 'express'
import * as v from 'valibot'
import { answer } from './routes.ts'

const Piece = v.object({
  title: v.string(),
  folder: v.nullable(v.object({ name: v.string() })),
  parts: v.array(v.object({ id: v.number() })),
})

/** What was sent, as a response would. */
function answered(body: unknown): unknown {
  let sent: unknown
  const response = { status: () => response, json: (said: unknown) => void (sent = said) }
  answer(response as unknown as Response, Piece, body as never)
  return sent
}

const GOOD = { title: 'Crab', folder: { name: 'Rocks' }, parts: [{ id: 1 }] }

test('an answer as the contract promises it goes out', () => {
  expect(answered(GOOD)).toEqual(GOOD)
  expect(answered({ ...GOOD, folder: null, parts: [] })).toEqual({
    title: 'Crab',
    folder: null,
    parts: [],
  })
})

test.each([
  ['a field too few', { folder: null, parts: [] }, /breaks its contract at title/],
  ['a field of another kind', { ...GOOD, title: 7 }, /breaks its contract at title/],
  ['a field too few, deep inside', { ...GOOD, parts: [{ id: 1 }, {}] }, /parts\.1\.id/],
  ['a field too many', { ...GOOD, password_hash: 'x' }, /does not name: password_hash/],
  [
    'a field too many, deep inside',
    { ...GOOD, parts: [{ id: 1, owner: 'Wren' }] },
    /answer\.parts\.0 .*does not name: owner/,
  ],
])('%s fails where it is made', (_what, body, said) => {
  expect(() => answered(body)).toThrow(said)
})

test('outside of tests a field too many is left out', () => {
  const strict = process.env.NIBQUILL_STRICT_ANSWERS
  delete process.env.NIBQUILL_STRICT_ANSWERS
  expect(answered({ ...GOOD, password_hash: 'x' })).toEqual(GOOD)
  process.env.NIBQUILL_STRICT_ANSWERS = strict
})
