import { randomBytes } from 'node:crypto'
import {
  copyFile,
  mkdir,
  readdir,
  readFile,
  rename,
  rm,
  stat,
  statfs,
  writeFile,
} from 'node:fs/promises'
import path from 'node:path'
import type { Response } from 'express'

/**
 * Where files lie: on disk by default; an object store can stand in its place. Keys are `<hash or
 * id>[-size].<ending>`.
 */
export interface Storage {
  put(key: string, content: Uint8Array | { file: string }): Promise<void>
  has(key: string): Promise<boolean>
  read(key: string): Promise<Buffer>
  sizeBytes(key: string): Promise<number>
  /** What is not there is gone already. */
  remove(key: string): Promise<void>
  /** Everything that lies there, in no order. */
  list(): AsyncIterable<{ key: string; storedAt: Date }>
  /**
   * Answers a request with the object: ranges, validators and length included. Headers must be set
   * before.
   */
  serve(key: string, response: Response): Promise<void>
  /** @throws when nothing can be written. */
  check(): Promise<void>
}

export class FileStorage implements Storage {
  readonly #root: string
  constructor(root: string) {
    this.#root = root
  }

  #path(key: string): string {
    if (!/^[\w-]+\.\w+$/.test(key)) throw new Error(`not a storage key: ${key}`)
    return path.join(this.#root, key.slice(0, 2), key)
  }

  async put(key: string, content: Uint8Array | { file: string }): Promise<void> {
    const target = this.#path(key)
    await mkdir(path.dirname(target), { recursive: true })
    // Renaming is the one step that shows the object: a reader never meets half of it.
    const draft = `${target}.${randomBytes(6).toString('hex')}.part`
    try {
      if (content instanceof Uint8Array) await writeFile(draft, content)
      else await copyFile(content.file, draft)
      await rename(draft, target)
    } finally {
      await rm(draft, { force: true })
    }
  }

  async has(key: string): Promise<boolean> {
    return stat(this.#path(key)).then(
      () => true,
      () => false,
    )
  }

  read(key: string): Promise<Buffer> {
    return readFile(this.#path(key))
  }

  async sizeBytes(key: string): Promise<number> {
    return (await stat(this.#path(key))).size
  }

  remove(key: string): Promise<void> {
    // Drafts of files are cleaned away under the names they have.
    const draft = /^[\w-]+\.\w+\.[0-9a-f]{12}\.part$/.test(key)
    return rm(draft ? path.join(this.#root, key.slice(0, 2), key) : this.#path(key), {
      force: true,
    })
  }

  async *list(): AsyncIterable<{ key: string; storedAt: Date }> {
    for (const shelf of await readdir(this.#root).catch(() => [])) {
      const names = /^[\w-]{2}$/.test(shelf) ? await readdir(path.join(this.#root, shelf)) : []
      for (const key of names) {
        const about = await stat(path.join(this.#root, shelf, key)).catch(() => null)
        if (about) yield { key, storedAt: about.mtime }
      }
    }
  }

  serve(key: string, response: Response): Promise<void> {
    return new Promise((resolve, reject) => {
      response.sendFile(this.#path(key), { cacheControl: false, dotfiles: 'allow' }, (error) => {
        // A reader who closes the page half-way is no error of ours.
        if (
          !error ||
          response.headersSent ||
          (error as NodeJS.ErrnoException).code === 'ECONNABORTED'
        )
          resolve()
        else reject(error)
      })
    })
  }

  async check(): Promise<void> {
    await mkdir(this.#root, { recursive: true })
    const disk = await statfs(this.#root)
    if (disk.bavail * disk.bsize < 64 * 1024 * 1024) throw new Error('less than 64 MB free')
  }
}
