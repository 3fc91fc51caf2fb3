import { CARD_CODE_LENGTH, CARD_LETTERS, SECRET_SYMBOLS, triesWithin } from '@nibquill/core'
import type { PupilSecret } from '@nibquill/contract'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'
import { WRONG_TRIES } from './signInLimits.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const GUESSES = 600
const AT_ONCE = 10
const YEAR_SECONDS = 365.25 * 24 * 3600

/** Sends guesses side by side and counts the answers by status. */
async function guessAll(
  count: number,
  guess: (i: number) => Promise<number>,
): Promise<Record<number, number>> {
  const statuses: Record<number, number> = {}
  let next = 0
  const worker = async () => {
    while (next < count) {
      const status = await guess(next++)
      statuses[status] = (statuses[status] ?? 0) + 1
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, worker))
  return statuses
}

const codeOf = (i: number): string => {
  let rest = i * 7919 + 13
  return Array.from({ length: CARD_CODE_LENGTH }, () => {
    const letter = CARD_LETTERS[rest % CARD_LETTERS.length]!
    rest = Math.floor(rest / CARD_LETTERS.length) + i
    return letter
  }).join('')
}

/** The figures of docs/how-hard-to-guess.md, measured against the limiter. */
test('of a hundred wrong pictures for one peg, sent as fast as they go, three are looked at; a day gives 34', async () => {
  await school.teacher.ask('PATCH', `/accounts/classes/${school.ids.heron}/door`, {
    switch: 'open',
    asksSecret: true,
  })
  const code = await test_.server.capabilities.doors.issueCard(test_.manager, school.ids.heron)
  const shared = test_.visitor()
  await shared.ask('POST', '/accounts/sign-in/card', { code })
  const { body } = await school.teacher.ask<PupilSecret[]>(
    'GET',
    `/accounts/classes/${school.ids.heron}/secrets`,
  )
  const right = body.find(({ pupil }) => pupil.id === school.ids.wren)!.symbols.join()
  const all = SECRET_SYMBOLS.flatMap((a) =>
    SECRET_SYMBOLS.flatMap((b) => SECRET_SYMBOLS.map((c) => [a, b, c])),
  )
  expect(all).toHaveLength(1728)
  const wrong = all.filter((secret) => secret.join() !== right).slice(0, 100)
  const tap = (secret: readonly string[]) =>
    shared.ask('POST', '/accounts/sign-in/peg', { pupilId: school.ids.wren, secret })
  const statuses = await guessAll(wrong.length, async (i) => (await tap(wrong[i]!)).status)
  expect(statuses).toEqual({ 401: 3, 429: wrong.length - 3 })
  // One in fifty for a whole day at one peg; before that the teacher has seen a peg that waits all
  // day.
  expect(triesWithin(7 * 3600 * 1000) / all.length).toBeLessThan(0.02)
}, 180_000)

// Comes last: this address is turned away for ten minutes afterwards.
test('of six hundred guessed codes sent as fast as they go, no more are looked at than the limit says', async () => {
  const enter = async (who: Person, code: string) =>
    (await who.ask('POST', '/accounts/sign-in/card', { code })).status
  const card = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.wren)
  const tablet = test_.visitor()
  expect(await enter(tablet, card)).toBe(200)
  const guesser = test_.visitor()
  const statuses = await guessAll(GUESSES, (i) => enter(guesser, codeOf(i)))
  expect(statuses[200]).toBeUndefined()
  const lookedAt = statuses[401] ?? 0
  expect(lookedAt).toBeGreaterThan(0)
  expect(lookedAt).toBeLessThanOrEqual(WRONG_TRIES.address.points)
  expect(lookedAt + (statuses[429] ?? 0)).toBe(GUESSES)

  // 500 cards in use, one address guessing without a pause: how long until one is found, on
  // average?
  const guessesASecond = WRONG_TRIES.address.points / WRONG_TRIES.address.duration
  const years = CARD_LETTERS.length ** CARD_CODE_LENGTH / 500 / guessesASecond / YEAR_SECONDS
  expect(years).toBeGreaterThan(6e9)
  // A thousand addresses at once still need millions of years.
  expect(years / 1000).toBeGreaterThan(6e6)

  // Whoever did this shut out strangers at the school's address, and none of the tablets somebody
  // came in with before.
  expect(await enter(test_.visitor(), card)).toBe(429)
  expect(await enter(tablet, card)).toBe(200)
  const forger = test_.visitor()
  forger.cookies.set('nibquill-known', `${'A'.repeat(22)}.${'A'.repeat(22)}`)
  expect(await enter(forger, card)).toBe(429)
  // A known one has a count of its own.
  const own = await guessAll(90, (i) => enter(tablet, codeOf(GUESSES + i)))
  expect(own).toEqual({ 401: WRONG_TRIES.browser.points, 429: 90 - WRONG_TRIES.browser.points })
})
