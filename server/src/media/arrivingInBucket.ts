import { DeleteObjectCommand, GetObjectCommand, S3Client } from '@aws-sdk/client-s3'
import { S3Store } from '@tus/s3-store'
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { S3Config } from '../platform/config.ts'
import { s3Options } from '../platform/s3Storage.ts'
import type { Arriving } from './arriving.ts'

/** The least an S3-compatible store takes as a part of a larger file. */
const PART_BYTES = 5 * 1024 * 1024

/** What another server has taken in or given up must not be here any more. */
const NOTHING_REMEMBERED = {
  get: async () => undefined,
  set: async () => undefined,
  delete: async () => undefined,
}

/** What is arriving waits in the bucket, under the ids of its uploads. */
export function inBucket(s3: S3Config): Arriving {
  const client = new S3Client(s3Options(s3))
  const store = new S3Store({
    partSize: PART_BYTES,
    useTags: false,
    cache: NOTHING_REMEMBERED,
    s3ClientConfig: { bucket: s3.bucket, ...s3Options(s3) },
  })
  return {
    store,
    withFile: async (uploadId, work) => {
      const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-arrived-'))
      try {
        const file = path.join(folder, 'whole')
        const { Body } = await client.send(
          new GetObjectCommand({ Bucket: s3.bucket, Key: uploadId }),
        )
        await pipeline(Body as Readable, createWriteStream(file))
        return await work(file)
      } finally {
        await rm(folder, { recursive: true, force: true })
      }
    },
    remove: async (uploadId) => {
      // Gives up the parts of one that is half here; of one that is whole the store says it has
      // none.
      await store.remove(uploadId).catch(() => undefined)
      for (const Key of [uploadId, `${uploadId}.info`, `${uploadId}.part`])
        await client.send(new DeleteObjectCommand({ Bucket: s3.bucket, Key }))
    },
  }
}
