import { FileStore } from '@tus/file-store'
import type { DataStore } from '@tus/server'
import { mkdir, rm } from 'node:fs/promises'
import path from 'node:path'
import type { Config } from '../platform/config.ts'

/** Where files wait while their bytes arrive. */
export type Arriving = {
  /** What the upload library writes to. */
  store: DataStore
  /** Lends what arrived whole as a file, to be read. */
  withFile<T>(uploadId: string, work: (file: string) => Promise<T>): Promise<T>
  /** What is not there is gone already. */
  remove(uploadId: string): Promise<void>
}

/** Beside the files: in the data folder, or in the bucket. @param waitsMs - For their sender. */
export async function openArriving(
  { s3, dataFolder }: Pick<Config, 's3' | 'dataFolder'>,
  waitsMs: number,
): Promise<Arriving> {
  // Read when it is wanted: most schools keep files on disk.
  if (s3) return (await import('./arrivingInBucket.ts')).inBucket(s3)
  const folder = path.join(dataFolder, 'arriving')
  await mkdir(folder, { recursive: true })
  return inFolder(folder, waitsMs)
}

const inFolder = (folder: string, waitsMs: number): Arriving => ({
  store: new FileStore({ directory: folder, expirationPeriodInMilliseconds: waitsMs }),
  withFile: (uploadId, work) => work(path.join(folder, uploadId)),
  remove: async (uploadId) => {
    for (const name of [uploadId, `${uploadId}.json`])
      await rm(path.join(folder, name), { force: true })
  },
})
