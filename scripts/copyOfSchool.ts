// What a copy of a school is: a folder with its database, its files, its key, and a list of hashes
// over all of it.
import { hashFile } from '@nibquill/server/platform/hashFile'
import { existsSync } from 'node:fs'
import { copyFile, mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import path from 'node:path'

/** As `sha256sum` writes and checks it. */
export const MANIFEST = 'manifest-sha256.txt'
export const DATABASE = 'database.dump'
export const KEY = 'secret.key'
export const FILES = 'files'

/** Where a file lies in the store of a data folder, and in a copy of it. */
export const placeOf = (folder: string, key: string): string =>
  path.join(folder, FILES, key.slice(0, 2), key)

/** Copies one file so that it is never half there. @returns the hash of what now lies at `to` */
export async function copyChecked(from: string, to: string): Promise<string> {
  await mkdir(path.dirname(to), { recursive: true })
  await copyFile(from, `${to}.part`)
  await rename(`${to}.part`, to)
  const [before, after] = [await hashFile(from), await hashFile(to)]
  if (before !== after) {
    await rm(to, { force: true })
    throw new Error(`${to} did not arrive as ${from} is`)
  }
  return after
}

export type Entry = { hash: string; name: string }

export const writeManifest = (folder: string, entries: readonly Entry[]): Promise<void> =>
  writeFile(
    path.join(folder, MANIFEST),
    entries.map(({ hash, name }) => `${hash}  ${name}\n`).join(''),
  )

/** @throws Error when the folder is no copy of a school, or not the whole of one */
export async function readManifest(folder: string): Promise<Entry[]> {
  const file = path.join(folder, MANIFEST)
  if (!existsSync(file))
    throw new Error(`${folder} holds no whole copy of a school: ${MANIFEST} is missing`)
  return (await readFile(file, 'utf8'))
    .split('\n')
    .filter(Boolean)
    .map((line) => ({ hash: line.slice(0, 64), name: line.slice(66) }))
}

/** @returns what is missing or is not as it was when the copy was made */
export async function findDamaged(folder: string, entries: readonly Entry[]): Promise<string[]> {
  const damaged: string[] = []
  for (const { hash, name } of entries) {
    const file = path.join(folder, name)
    if (!(await stat(file).catch(() => null)) || (await hashFile(file)) !== hash) damaged.push(name)
  }
  return damaged
}
