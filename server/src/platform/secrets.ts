import { CARD_LETTERS } from '@nibquill/core'
import {
  createCipheriv,
  createDecipheriv,
  createHmac,
  hkdfSync,
  randomBytes,
  randomInt,
} from 'node:crypto'
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import path from 'node:path'

/** What a secret is for: the same text in two purposes never gives the same hash. */
export type Purpose =
  | 'card'
  | 'door-card'
  | 'session'
  | 'browser'
  | 'tablet'
  | 'invitation'
  | 'page-link'
  | 'password-link'
  | 'mail-code'
  | 'spare-code'
  | 'known-browser'

const NONCE_BYTES = 12
const TAG_BYTES = 16

/** Keyed hashes and random tokens. The key stands in the data folder, outside the database. */
export class Secrets {
  readonly #key: Buffer
  constructor(key: Buffer) {
    this.#key = key
  }

  /** Opens the key file, or makes it, readable by its owner only. */
  static async open(dataFolder: string): Promise<Secrets> {
    await mkdir(dataFolder, { recursive: true })
    const file = path.join(dataFolder, 'secret.key')
    await writeFile(file, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' }).catch(
      (error: NodeJS.ErrnoException) => {
        if (error.code !== 'EEXIST') throw error
      },
    )
    return new Secrets(Buffer.from(await readFile(file, 'utf8'), 'hex'))
  }

  /** HMAC-SHA-256, hex: what the database keeps of a secret. @see RFC 2104 */
  hash(purpose: Purpose, secret: string): string {
    return createHmac('sha256', this.#key).update(`${purpose}:${secret}`).digest('hex')
  }

  /** A fresh 256-bit token, base64url. */
  token(): string {
    return randomBytes(32).toString('base64url')
  }

  /**
   * A 132-bit token that belongs to an id and can be written again: a book made twice carries the
   * same links.
   */
  tokenFor(purpose: Purpose, id: string): string {
    return createHmac('sha256', this.#key)
      .update(`token:${purpose}:${id}`)
      .digest('base64url')
      .slice(0, 22)
  }

  byte(): number {
    return randomBytes(1)[0]!
  }

  /** Random letters of those that stand on cards. */
  letters(count: number): string {
    return Array.from({ length: count }, () => CARD_LETTERS[randomInt(CARD_LETTERS.length)]).join(
      '',
    )
  }

  /** Random digits, as text: the first may be 0. */
  digits(count: number): string {
    return Array.from({ length: count }, () => randomInt(10)).join('')
  }

  /**
   * Hides what must be read again, with AES-256-GCM.
   * @returns nonce, tag and text, base64url.
   * @see NIST SP 800-38D
   */
  seal(text: string): string {
    return this.sealBytes(Buffer.from(text, 'utf8')).toString('base64url')
  }

  /** @throws Error when it was sealed with another key or changed since */
  unseal(sealed: string): string {
    return this.unsealBytes(Buffer.from(sealed, 'base64url')).toString('utf8')
  }

  /** As `seal`, for files. @returns nonce, tag and content */
  sealBytes(bytes: Uint8Array): Buffer {
    const nonce = randomBytes(NONCE_BYTES)
    const cipher = createCipheriv('aes-256-gcm', this.#sealingKey(), nonce)
    const hidden = Buffer.concat([cipher.update(bytes), cipher.final()])
    return Buffer.concat([nonce, cipher.getAuthTag(), hidden])
  }

  /** @throws Error when it was sealed with another key or changed since */
  unsealBytes(bytes: Buffer): Buffer {
    const decipher = createDecipheriv(
      'aes-256-gcm',
      this.#sealingKey(),
      bytes.subarray(0, NONCE_BYTES),
    )
    decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES))
    return Buffer.concat([
      decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)),
      decipher.final(),
    ])
  }

  /** A key of its own, so that no key serves two purposes. @see RFC 5869 */
  #sealingKey(): Buffer {
    return Buffer.from(hkdfSync('sha256', this.#key, '', 'seal', 32))
  }
}
