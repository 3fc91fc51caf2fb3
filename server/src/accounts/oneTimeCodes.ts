import type { OneTimeCodeState, OneTimeSecret } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Secret, TOTP } from 'otpauth'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { OneTimeSecretRow, SpareCodeRow } from './rows.ts'
import { PersonRow } from '../school/rows.ts'
import { SchoolRow } from '../school/rows.ts'

const STEP_MS = 30_000
/** RFC 6238, section 5.2: one step either way, for clocks that differ and for slow fingers. */
const STEPS_EITHER_WAY = 1
/** RFC 4226, section 4, R6: at least 128 bits, 160 recommended. */
const SECRET_BYTES = 20
const SPARE_CODES = 8
const SPARE_LETTERS = 10

/**
 * A second proof for staff who want it: a code that an authenticator shows for half a minute.
 * @see RFC 6238
 */
export class OneTimeCodes {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  async isOn(personId: string): Promise<boolean> {
    return Boolean((await this.#find(personId))?.confirmedAt)
  }

  async describe(viewer: SignedIn): Promise<OneTimeCodeState> {
    const spare = await this.#platform.db.manager.countBy(SpareCodeRow, {
      personId: viewer.personId,
    })
    const on = await this.isOn(viewer.personId)
    return { on, spareCodesLeft: on ? spare : 0 }
  }

  /** A fresh secret for the authenticator. It does nothing until a code made with it was typed. */
  async begin(viewer: SignedIn): Promise<OneTimeSecret> {
    if (await this.isOn(viewer.personId)) throw new DomainError('accounts/codes-already-on')
    const { manager } = this.#platform.db
    const { name } = await manager.findOneOrFail(SchoolRow, { where: {} })
    const person = await manager.findOneByOrFail(PersonRow, { id: viewer.personId })
    const secret = new Secret({ size: SECRET_BYTES })
    const totp = new TOTP({
      ...SHAPE,
      issuer: `Nibquill ${name}`,
      label: person.email ?? person.firstName,
      secret,
    })
    await manager.save(OneTimeSecretRow, {
      personId: viewer.personId,
      sealed: this.#platform.secrets.seal(secret.base32),
      confirmedAt: null,
      lastStep: 0,
    })
    return { secret: secret.base32, address: totp.toString() }
  }

  /**
   * Switches codes on once the first one was right.
   * @returns spare codes, shown this once
   * @throws DomainError `accounts/code-wrong`
   */
  async confirm(viewer: SignedIn, code: string): Promise<string[]> {
    const row = await this.#find(viewer.personId)
    if (!row || row.confirmedAt) throw new DomainError('accounts/codes-already-on')
    if (!(await this.#takeStep(row, code))) throw new DomainError('accounts/code-wrong')
    const spare = Array.from({ length: SPARE_CODES }, () => this.#spareCode())
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(OneTimeSecretRow, viewer.personId, { confirmedAt: now })
      await manager.delete(SpareCodeRow, { personId: viewer.personId })
      await manager.insert(
        SpareCodeRow,
        spare.map((one) => ({
          id: newId(),
          personId: viewer.personId,
          codeHash: this.#platform.secrets.hash('spare-code', one),
        })),
      )
      await note(manager, now, viewer.personId, 'one-time-codes.on', viewer.personId)
    })
    return spare
  }

  /** For oneself, or by the school's lead for somebody whose phone is lost. */
  async switchOff(
    viewer: SignedIn,
    personId: string,
    manager = this.#platform.db.manager,
  ): Promise<void> {
    await manager.delete(OneTimeSecretRow, { personId })
    await manager.delete(SpareCodeRow, { personId })
    await note(manager, this.#platform.clock.now(), viewer.personId, 'one-time-codes.off', personId)
  }

  /**
   * Each code counts once, a spare one as well. Nothing to check where codes are off.
   * @throws DomainError `accounts/code-wrong`
   */
  async check(personId: string, code: string): Promise<void> {
    const row = await this.#find(personId)
    if (!row?.confirmedAt) return
    if (await this.#takeStep(row, code)) return
    const codeHash = this.#platform.secrets.hash(
      'spare-code',
      code.toUpperCase().replaceAll(/[^A-Z]/g, ''),
    )
    const { affected } = await this.#platform.db.manager.delete(SpareCodeRow, {
      personId,
      codeHash,
    })
    if (!affected) throw new DomainError('accounts/code-wrong')
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      personId,
      'spare-code.used',
      personId,
    )
  }

  /** RFC 6238, section 5.2: a code that was accepted once is refused the second time. */
  async #takeStep(row: OneTimeSecretRow, code: string): Promise<boolean> {
    const secret = Secret.fromBase32(this.#platform.secrets.unseal(row.sealed))
    const timestamp = this.#platform.clock.now().getTime()
    const token = code.replaceAll(/\D/g, '')
    const away = new TOTP({ ...SHAPE, secret }).validate({
      token,
      timestamp,
      window: STEPS_EITHER_WAY,
    })
    if (away === null) return false
    const step = Math.floor(timestamp / STEP_MS) + away
    const taken = await this.#platform.db.manager.query<[unknown, number]>(
      'update one_time_secret set last_step = $2 where person_id = $1 and last_step < $2',
      [row.personId, step],
    )
    return taken[1] > 0
  }

  #find(personId: string): Promise<OneTimeSecretRow | null> {
    return this.#platform.db.manager.findOneBy(OneTimeSecretRow, { personId })
  }

  /** Letters of name cards: none is taken for another. About 40 bits. */
  #spareCode(): string {
    return this.#platform.secrets.letters(SPARE_LETTERS)
  }
}

const SHAPE = { algorithm: 'SHA1', digits: 6, period: STEP_MS / 1000 } as const
