import { randomBytes } from 'node:crypto'
import { createReadStream } from 'node:fs'
import {
  copyFile,
  mkdir,
  open,
  readdir,
  readFile,
  rename,
  rm,
  stat,
  statfs,
  writeFile,
} from 'node:fs/promises'
import path from 'node:path'
import type { Readable } from 'node:stream'
import {
  refuseOddKeys,
  type ByteRange,
  type Content,
  type Storage,
  type Stored,
} from './storage.ts'

/** A file that is being written, before its name is there. */
const DRAFT = /^[\w-]+\.\w+\.[0-9a-f]{12}\.part$/

/** Files in a folder, on shelves by the first two letters of their keys. */
export class FileStorage implements Storage {
  readonly #root: string
  constructor(root: string) {
    this.#root = root
  }

  #path(key: string): string {
    refuseOddKeys(key)
    return path.join(this.#root, key.slice(0, 2), key)
  }

  async put(key: string, content: Content): Promise<void> {
    const target = this.#path(key)
    await mkdir(path.dirname(target), { recursive: true })
    // Renaming is the one step that shows the file: a reader never meets half of it.
    const draft = `${target}.${randomBytes(6).toString('hex')}.part`
    try {
      if (content instanceof Uint8Array) await writeFile(draft, content)
      else if (content.given) await moveOrCopy(content.file, draft)
      else await copyFile(content.file, draft)
      await rename(draft, target)
    } finally {
      await rm(draft, { force: true })
    }
  }

  async about(key: string): Promise<Stored | null> {
    const about = await stat(this.#path(key)).catch(orNothing)
    return about && { sizeBytes: about.size, storedAt: about.mtime }
  }

  read(key: string): Promise<Buffer> {
    return readFile(this.#path(key))
  }

  withFile<T>(key: string, work: (file: string) => Promise<T>): Promise<T> {
    return work(this.#path(key))
  }

  async stream(key: string, range?: ByteRange): Promise<Readable> {
    // Opened first, so that what is not there is said before anything is answered.
    const file = await open(this.#path(key))
    return createReadStream('', { fd: file, ...range })
  }

  remove(key: string): Promise<void> {
    // Drafts of files are cleaned away under the names they have.
    const place = DRAFT.test(key) ? path.join(this.#root, key.slice(0, 2), key) : this.#path(key)
    return rm(place, { force: true })
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

  async check(): Promise<void> {
    await mkdir(this.#root, { recursive: true })
    const disk = await statfs(this.#root)
    if (disk.bavail * disk.bsize < 64 * 1024 * 1024) throw new Error('less than 64 MB free')
  }
}

/** Another name costs nothing; where the file lies on another disk, its bytes are copied. */
const moveOrCopy = (file: string, to: string): Promise<void> =>
  rename(file, to).catch(() => copyFile(file, to))

function orNothing(error: NodeJS.ErrnoException): null {
  if (error.code === 'ENOENT') return null
  throw error
}
