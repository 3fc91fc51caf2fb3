import { DomainError, strangerWaitMs } from '@nibquill/core'
import type { Pool } from 'pg'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { setTimeout as sleep } from 'node:timers/promises'

const QUARTER_HOUR_S = 900
/** For counts that slow down and never shut out. */
const NO_END = 1_000_000_000

/**
 * Wrong tries allowed before waiting, in `duration` seconds. A whole school shares one address, and
 * 65-bit codes are not found by 300 guesses.
 */
export const WRONG_TRIES = {
  address: { points: 300, duration: 600 },
  /** A browser somebody came in with before. */
  browser: { points: 60, duration: 600 },
  prefix: { points: 8, duration: 600 },
  /** One e-mail address tried with one known browser: nobody else is kept out by it. */
  pair: { points: 8, duration: QUARTER_HOUR_S },
  /** One e-mail address tried by strangers, wherever they are: they get slower. */
  stranger: { points: NO_END, duration: QUARTER_HOUR_S },
  /** One-time codes tried by somebody who has the password already. */
  code: { points: 8, duration: QUARTER_HOUR_S },
  /**
   * Letters asked for (a way in by mail, a new password) with one known browser, or with one
   * address for all strangers.
   */
  letter: { points: 4, duration: 3600 },
} as const
type Kind = keyof typeof WRONG_TRIES

/**
 * Strangers who wait for one e-mail address at a time, in one process; more are asked to come back.
 */
const MOST_WAITING = 5
const COME_BACK_S = 5

/**
 * Counts wrong sign-ins, in the database, so that all server processes count together. Right ones
 * cost nothing.
 */
export class SignInLimits {
  readonly #limiters: Record<Kind, RateLimiterPostgres>
  readonly #waiting = new Map<string, number>()
  constructor(pool: Pool) {
    const make = (kind: Kind) =>
      new RateLimiterPostgres({
        storeClient: pool,
        storeType: 'client',
        tableName: 'sign_in_try',
        tableCreated: true,
        keyPrefix: kind,
        ...WRONG_TRIES[kind],
        // A caller far beyond the limit is turned away without asking the database.
        inMemoryBlockOnConsumed:
          kind === 'address' || kind === 'browser' ? WRONG_TRIES[kind].points + 1 : 0,
      })
    this.#limiters = Object.fromEntries(
      Object.keys(WRONG_TRIES).map((kind) => [kind, make(kind as Kind)]),
    ) as Record<Kind, RateLimiterPostgres>
  }

  /**
   * Counts a try before it is looked at, so that a thousand at once cannot slip past the count; one
   * that is right is given back.
   * @param keys - `<kind>:<value>`
   * @param attempt - Throws when the try was wrong.
   * @throws DomainError `accounts/too-many-tries` with `retryAfterSeconds`, and the try is not
   *   looked at
   */
  async count<T>(keys: readonly string[], attempt: () => Promise<T>): Promise<T> {
    for (const [kind, value] of keys.map(split)) await this.#take(kind, value)
    const result = await attempt()
    for (const [kind, value] of keys.map(split)) await this.#limiters[kind].reward(value)
    return result
  }

  /**
   * As `count`, for somebody's e-mail address. A known browser counts for itself; strangers are
   * slowed down together, so that none of
   * them can keep out whom the address belongs to.
   * @param countedBy - As `KnownBrowsers` gives it.
   */
  async countFor<T>(email: string, countedBy: string, attempt: () => Promise<T>): Promise<T> {
    if (isKnown(countedBy)) return this.count([countedBy, `pair:${email}/${countedBy}`], attempt)
    return this.count([countedBy], async () => {
      const { consumedPoints } = await this.#limiters.stranger.consume(email)
      await this.#wait(email, strangerWaitMs(consumedPoints))
      const result = await attempt()
      await this.#limiters.stranger.reward(email)
      return result
    })
  }

  async #wait(email: string, waitMs: number): Promise<void> {
    if (waitMs === 0) return
    const others = this.#waiting.get(email) ?? 0
    if (others >= MOST_WAITING)
      throw new DomainError('accounts/too-many-tries', { retryAfterSeconds: COME_BACK_S })
    this.#waiting.set(email, others + 1)
    await sleep(waitMs)
    const left = this.#waiting.get(email)! - 1
    if (left > 0) this.#waiting.set(email, left)
    else this.#waiting.delete(email)
  }

  /**
   * Counts a letter asked for. A known browser has its own few; strangers share some, and beyond
   * them a letter goes only when none
   * that was sent still opens anything: so nobody's box is filled, and nobody is kept from a
   * letter.
   * @returns whether one may go whatever was sent before
   * @throws DomainError `accounts/too-many-tries` for a known browser that has asked enough, and
   *   for addresses that ask without end
   */
  async countLetter(email: string, countedBy: string): Promise<boolean> {
    await this.#take(...split(countedBy))
    if (isKnown(countedBy)) {
      await this.#take('letter', `${email}/${countedBy}`)
      return true
    }
    return this.#limiters.letter.consume(email).then(
      () => true,
      (refused: unknown) => {
        if (refused instanceof RateLimiterRes) return false
        throw refused
      },
    )
  }

  async #take(kind: Kind, value: string): Promise<void> {
    await this.#limiters[kind].consume(value).catch((refused: unknown) => {
      throw refused instanceof RateLimiterRes ? tooMany(refused) : refused
    })
  }
}

const isKnown = (countedBy: string): boolean => countedBy.startsWith('browser:')
const split = (key: string): [Kind, string] => [
  key.slice(0, key.indexOf(':')) as Kind,
  key.slice(key.indexOf(':') + 1),
]
const tooMany = (tries: RateLimiterRes) =>
  new DomainError('accounts/too-many-tries', {
    retryAfterSeconds: Math.max(1, Math.ceil(tries.msBeforeNext / 1000)),
  })
