import { CreateBucketCommand, S3Client } from '@aws-sdk/client-s3'
import { randomUUID } from 'node:crypto'
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'
import { createInterface } from 'node:readline'
import type { S3Config } from '../platform/config.ts'
import { s3Options } from '../platform/s3Storage.ts'

/** OpenStack Swift on loopback: an object store that nobody of us wrote. */
export class ObjectStore {
  readonly #child: ChildProcess
  readonly #endpoint: string
  private constructor(child: ChildProcess, endpoint: string) {
    this.#child = child
    this.#endpoint = endpoint
  }

  static async start(): Promise<ObjectStore> {
    // Debian's Python: the package is its own.
    const child = spawn(
      '/usr/bin/python3',
      ['-I', fileURLToPath(new URL('./objectStore.py', import.meta.url))],
      { env: { PATH: process.env.PATH }, stdio: ['pipe', 'pipe', 'pipe'] },
    )
    let said = ''
    child.stderr
      .setEncoding('utf8')
      .on('data', (text: string) => (said = (said + text).slice(-4000)))
    const first = once(createInterface(child.stdout), 'line') as Promise<[string]>
    const gone = once(child, 'exit').then(() => {
      throw new Error(`the object store ended: ${said}`)
    })
    const [line] = await Promise.race([first, gone])
    gone.catch(() => undefined)
    const { port } = JSON.parse(line) as { port: number }
    return new ObjectStore(child, `http://127.0.0.1:${port}`)
  }

  /** A bucket of its own. */
  async bucket(): Promise<S3Config> {
    const config = {
      endpoint: this.#endpoint,
      region: 'us-east-1',
      bucket: `saltmarsh-${randomUUID()}`,
      keyId: 'test:tester',
      secret: 'testing',
    }
    const client = new S3Client(s3Options(config))
    await client.send(new CreateBucketCommand({ Bucket: config.bucket }))
    client.destroy()
    return config
  }

  async stop(): Promise<void> {
    const gone = once(this.#child, 'exit')
    this.#child.stdin!.end()
    await gone
  }
}
