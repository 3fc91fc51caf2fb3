import { createHmac, randomBytes } from 'node:crypto'
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import path from 'node:path'

/** What a secret is for: the same text in two purposes never gives the same hash. */
export type Purpose = 'card' | 'session' | 'invitation' | 'page-link' | 'password-link'

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
    await writeFile(file, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' }).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'EEXIST') throw error
    })
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

  /** A 132-bit token that belongs to an id and can be written again: a book made twice carries the same links. */
  tokenFor(purpose: Purpose, id: string): string {
    return createHmac('sha256', this.#key).update(`token:${purpose}:${id}`).digest('base64url').slice(0, 22)
  }

  byte(): number {
    return randomBytes(1)[0]!
  }
}
