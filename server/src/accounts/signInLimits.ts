import { DomainError } from '@nibquill/core'
import type { Pool } from 'pg'
import { RateLimiterPostgres, type RateLimiterRes } from 'rate-limiter-flexible'

/** Wrong tries allowed before waiting. A whole school shares one address, and 65-bit codes are not found by 300 guesses. */
const WRONG_TRIES = {
  address: { points: 300, duration: 600 },
  prefix: { points: 8, duration: 600 },
  email: { points: 8, duration: 900 },
} as const
type Kind = keyof typeof WRONG_TRIES

/** Counts wrong sign-ins, in the database, so that all server processes count together. Right ones cost nothing. */
export class SignInLimits {
  readonly #limiters: Record<Kind, RateLimiterPostgres>
  constructor(pool: Pool) {
    const make = (kind: Kind) =>
      new RateLimiterPostgres({
        storeClient: pool, storeType: 'client', tableName: 'sign_in_try', tableCreated: true, keyPrefix: kind, ...WRONG_TRIES[kind],
      }) // prettier-ignore
    this.#limiters = { address: make('address'), prefix: make('prefix'), email: make('email') }
  }

  /** @param keys - `<kind>:<value>` @throws DomainError `accounts/too-many-tries` with `retryAfterSeconds` */
  async refuseAfterTooMany(keys: readonly string[]): Promise<void> {
    for (const [kind, value] of keys.map(split)) {
      const tries = await this.#limiters[kind].get(value)
      if (tries && tries.consumedPoints >= WRONG_TRIES[kind].points) throw tooMany(tries)
    }
  }

  async countWrongTry(keys: readonly string[]): Promise<void> {
    for (const [kind, value] of keys.map(split)) {
      await this.#limiters[kind].consume(value).catch((refused: unknown) => {
        if (refused instanceof Error) throw refused
      })
    }
  }
}

const split = (key: string): [Kind, string] => [key.slice(0, key.indexOf(':')) as Kind, key.slice(key.indexOf(':') + 1)]
const tooMany = (tries: RateLimiterRes) =>
  new DomainError('accounts/too-many-tries', { retryAfterSeconds: Math.max(1, Math.ceil(tries.msBeforeNext / 1000)) })
