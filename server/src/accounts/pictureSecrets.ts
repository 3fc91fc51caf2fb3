import type { PupilSecret } from '@nibquill/contract'
import { DomainError, makePictureSecret, secretWaitMs, type SecretSymbol } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { noteFailed } from './noteFailed.ts'
import { PictureSecretRow } from './rows.ts'

/**
 * Three pictures in order, asked for after a tap on a peg.
 * They are kept readable, so that a teacher can tell a five-year-old who forgot: they open nothing
 * but a peg on a class's own tablet.
 */
export class PictureSecrets {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** Every pupil of a class with their pictures, by first name. Whoever had none is given some. */
  async list(classId: string): Promise<PupilSecret[]> {
    const manager = this.#platform.db.manager
    await this.giveMissing(manager, classId)
    const rows = await manager.query<
      {
        id: string
        firstName: string
        lastName: string
        symbol: never
        colour: never
        symbols: SecretSymbol[]
      }[]
    >(
      `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour, s.symbols
       from enrolment e join person p on p.id = e.person_id join picture_secret s on s.pupil_id = p.id
       where e.class_id = $1 and p.role = 'pupil' and p.left_at is null order by p.first_name, p.last_name, p.id`,
      [classId],
    )
    return rows.map(({ symbol, colour, symbols, ...pupil }) => ({
      pupil: { ...pupil, peg: { symbol, colour } },
      symbols,
    }))
  }

  async giveMissing(manager: EntityManager, classId: string): Promise<void> {
    const bare = await manager.query<{ id: string }[]>(
      `select p.id from enrolment e join person p on p.id = e.person_id where e.class_id = $1 and p.role = 'pupil' and p.left_at is null
         and not exists (select 1 from picture_secret s where s.pupil_id = p.id)`,
      [classId],
    )
    for (const { id } of bare)
      await manager
        .createQueryBuilder()
        .insert()
        .into(PictureSecretRow)
        .values(this.#make(id))
        .orIgnore()
        .execute()
  }

  /** New pictures for one pupil; waiting after wrong tries is over. */
  async renew(viewer: SignedIn, pupilId: string): Promise<void> {
    const manager = this.#platform.db.manager
    await manager.save(PictureSecretRow, this.#make(pupilId))
    await note(manager, this.#platform.clock.now(), viewer.personId, 'picture-secret', pupilId)
  }

  #make(pupilId: string): PictureSecretRow {
    const symbols = makePictureSecret(() => this.#platform.secrets.byte())
    return { pupilId, symbols, wrongTries: 0, waitUntil: null }
  }

  /**
   * One at a time for each pupil, so that guesses sent together are counted one after the other.
   * @throws DomainError `accounts/secret-wrong` with `retryAfterSeconds` (0: at once),
   *   `accounts/too-many-tries` while the peg waits
   */
  async check(pupilId: string, tried: readonly string[]): Promise<void> {
    const now = this.#platform.clock.now()
    const refusal = await this.#platform.db.transaction(async (manager) => {
      const secret = await manager.findOne(PictureSecretRow, {
        where: { pupilId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!secret) return new DomainError('accounts/no-secret-yet')
      const waitsMs = (secret.waitUntil?.getTime() ?? 0) - now.getTime()
      if (waitsMs > 0)
        return new DomainError('accounts/too-many-tries', {
          retryAfterSeconds: Math.ceil(waitsMs / 1000),
        })
      const right =
        tried.length === secret.symbols.length &&
        secret.symbols.every((symbol, i) => symbol === tried[i])
      const wrongTries = right ? 0 : secret.wrongTries + 1
      const waitMs = secretWaitMs(wrongTries)
      const waitUntil = waitMs > 0 ? new Date(now.getTime() + waitMs) : null
      await manager.update(PictureSecretRow, pupilId, { wrongTries, waitUntil })
      return right
        ? null
        : new DomainError('accounts/secret-wrong', { retryAfterSeconds: waitMs / 1000 })
    })
    // Thrown outside, so that the count is kept.
    if (refusal?.code === 'accounts/secret-wrong') await noteFailed(this.#platform, pupilId, 'peg')
    if (refusal) throw refusal
  }
}
