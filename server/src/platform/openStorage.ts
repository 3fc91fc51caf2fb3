import path from 'node:path'
import type { Config } from './config.ts'
import { FileStorage } from './fileStorage.ts'
import type { Storage } from './storage.ts'

/** Where this school's files lie, as its settings say. */
export async function openStorage({
  s3,
  dataFolder,
}: Pick<Config, 's3' | 'dataFolder'>): Promise<Storage> {
  if (!s3) return new FileStorage(path.join(dataFolder, 'files'))
  // Read when it is wanted: most schools keep files on disk.
  const { S3Storage } = await import('./s3Storage.ts')
  return new S3Storage(s3)
}
