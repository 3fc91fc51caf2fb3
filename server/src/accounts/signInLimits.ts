import { DomainError } from '@nibquill/core'
import type { Pool } from 'pg'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'

/** Wrong tries allowed before waiting, in `duration` seconds. A whole school shares one address, and 65-bit codes are not found by 300 guesses. */
export const WRONG_TRIES = {
  address: { points: 300, duration: 600 },
  /** A browser somebody came in with before. */
  browser: { points: 60, duration: 600 },
  prefix: { points: 8, duration: 600 },
  email: { points: 8, duration: 900 },
  /** Letters asked for: a way in by mail, a new password. */
  letter: { points: 4, duration: 3600 },
} as const
type Kind = keyof typeof WRONG_TRIES

/** Counts wrong sign-ins, in the database, so that all server processes count together. Right ones cost nothing. */
export class SignInLimits {
  readonly #limiters: Record<Kind, RateLimiterPostgres>
  constructor(pool: Pool) {
    const make = (kind: Kind) =>
      new RateLimiterPostgres({
        storeClient: pool, storeType: 'client', tableName: 'sign_in_try', tableCreated: true, keyPrefix: kind, ...WRONG_TRIES[kind],
        // A caller far beyond the limit is turned away without asking the database.
        inMemoryBlockOnConsumed: kind === 'address' || kind === 'browser' ? WRONG_TRIES[kind].points + 1 : 0,
      }) // prettier-ignore
    this.#limiters = { address: make('address'), browser: make('browser'), prefix: make('prefix'), email: make('email'), letter: make('letter') } // prettier-ignore
  }

  /**
   * Counts a try before it is looked at, so that a thousand at once cannot slip past the count; one that is right is given back.
   * @param keys - `<kind>:<value>`
   * @param attempt - Throws when the try was wrong.
   * @throws DomainError `accounts/too-many-tries` with `retryAfterSeconds`, and the try is not looked at
   */
  async count<T>(keys: readonly string[], attempt: () => Promise<T>): Promise<T> {
    for (const [kind, value] of keys.map(split)) await this.#take(kind, value)
    const result = await attempt()
    for (const [kind, value] of keys.map(split)) await this.#limiters[kind].reward(value)
    return result
  }

  /** Counts something that is never given back, for example a letter sent. @throws DomainError `accounts/too-many-tries` */
  async spend(key: string): Promise<void> {
    await this.#take(...split(key))
  }

  async #take(kind: Kind, value: string): Promise<void> {
    await this.#limiters[kind].consume(value).catch((refused: unknown) => {
      throw refused instanceof RateLimiterRes ? tooMany(refused) : refused
    })
  }
}

const split = (key: string): [Kind, string] => [key.slice(0, key.indexOf(':')) as Kind, key.slice(key.indexOf(':') + 1)]
const tooMany = (tries: RateLimiterRes) =>
  new DomainError('accounts/too-many-tries', { retryAfterSeconds: Math.max(1, Math.ceil(tries.msBeforeNext / 1000)) })
