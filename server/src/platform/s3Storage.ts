import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadBucketCommand,
  HeadObjectCommand,
  paginateListObjectsV2,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3'
import { createReadStream, createWriteStream } from 'node:fs'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { S3Config } from './config.ts'
import {
  isStorageKey,
  refuseOddKeys,
  type ByteRange,
  type Content,
  type Storage,
  type Stored,
} from './storage.ts'

/** Files lie beside what is still arriving. */
const PREFIX = 'files/'

/** What every S3-compatible store understands: no checksums of one vendor, names in the path. */
export const s3Options = ({ endpoint, region, keyId, secret }: S3Config) =>
  ({
    endpoint,
    region,
    forcePathStyle: true,
    credentials: { accessKeyId: keyId, secretAccessKey: secret },
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    // A store that answers nothing must not hold a page for ever.
    requestHandler: { connectionTimeout: 3000, socketTimeout: 60_000 },
  }) as const

/** Files in a bucket of an S3-compatible store. */
export class S3Storage implements Storage {
  readonly #client: S3Client
  readonly #bucket: string
  constructor(config: S3Config) {
    this.#client = new S3Client(s3Options(config))
    this.#bucket = config.bucket
  }

  #place(key: string): { Bucket: string; Key: string } {
    refuseOddKeys(key)
    return { Bucket: this.#bucket, Key: PREFIX + key }
  }

  async put(key: string, content: Content): Promise<void> {
    const [Body, ContentLength] =
      content instanceof Uint8Array
        ? [content, content.length]
        : [createReadStream(content.file), (await stat(content.file)).size]
    await this.#client.send(new PutObjectCommand({ ...this.#place(key), Body, ContentLength }))
  }

  async about(key: string): Promise<Stored | null> {
    const head = await this.#client
      .send(new HeadObjectCommand(this.#place(key)))
      .catch((error: unknown) => {
        if (error instanceof S3ServiceException && error.$metadata.httpStatusCode === 404)
          return null
        throw error
      })
    return head && { sizeBytes: head.ContentLength!, storedAt: head.LastModified! }
  }

  async read(key: string): Promise<Buffer> {
    const { Body } = await this.#client.send(new GetObjectCommand(this.#place(key)))
    return Buffer.from(await Body!.transformToByteArray())
  }

  async withFile<T>(key: string, work: (file: string) => Promise<T>): Promise<T> {
    const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-lent-'))
    try {
      const file = path.join(folder, key)
      await pipeline(await this.stream(key), createWriteStream(file))
      return await work(file)
    } finally {
      await rm(folder, { recursive: true, force: true })
    }
  }

  async stream(key: string, range?: ByteRange): Promise<Readable> {
    const Range = range && `bytes=${range.start}-${range.end}`
    const { Body } = await this.#client.send(new GetObjectCommand({ ...this.#place(key), Range }))
    return Body as Readable
  }

  async remove(key: string): Promise<void> {
    await this.#client.send(new DeleteObjectCommand(this.#place(key)))
  }

  async *list(): AsyncIterable<{ key: string; storedAt: Date }> {
    const pages = paginateListObjectsV2(
      { client: this.#client },
      { Bucket: this.#bucket, Prefix: PREFIX },
    )
    for await (const { Contents } of pages)
      for (const { Key, LastModified } of Contents ?? []) {
        const key = Key!.slice(PREFIX.length)
        // Somebody else's file in our bucket is not ours to take away.
        if (isStorageKey(key)) yield { key, storedAt: LastModified! }
      }
  }

  async check(): Promise<void> {
    await this.#client.send(new HeadBucketCommand({ Bucket: this.#bucket }))
  }
}
