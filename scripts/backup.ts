// npm run backup -- FOLDER: a copy of the school, made while people work.
import type { MediaType } from '@nibquill/core'
import { bookKey } from '@nibquill/server/book/bookKey'
import { fullKey } from '@nibquill/server/media/keys'
import { dataFolderOf, s3Of } from '@nibquill/server/platform/config'
import { hashFile } from '@nibquill/server/platform/hashFile'
import { openStorage } from '@nibquill/server/platform/openStorage'
import { KEEPING } from '@nibquill/server/retention/keeping'
import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import path from 'node:path'
import pg from 'pg'
import { findPostgres, startCluster } from './cluster.mjs'
import {
  copyChecked,
  DATABASE,
  type Entry,
  FILES,
  KEY,
  MANIFEST,
  placeOf,
  writeManifest,
} from './copyOfSchool.ts'
import { stop } from './setup.mjs'

const folder = process.argv[2] && path.resolve(process.argv[2])
if (!folder) stop('Say where the copy shall go: npm run backup -- /media/disk/nibquill-monday')
if (existsSync(folder!) && readdirSync(folder!).length > 0)
  stop(`${folder} is not empty. A copy goes into a folder of its own.`)
const target = folder!
const dataFolder = dataFolderOf(process.env)
const storage = await openStorage({ s3: s3Of(process.env), dataFolder })
if (!existsSync(path.join(dataFolder, KEY))) stop(`There is no school in ${dataFolder}.`)

const own = process.env.DATABASE_URL ? null : await startCluster(dataFolder)
const url = process.env.DATABASE_URL ?? own!.url('nibquill')
try {
  await mkdir(target, { recursive: true, mode: 0o700 })
  const entries = await copySchool()
  await writeManifest(target, entries)
  console.log(
    `Copied ${entries.length} files to ${target}. ${MANIFEST} lists them; check them any day with: cd ${target} && sha256sum -c ${MANIFEST}`,
  )
} catch (error) {
  console.error(
    `The copy was not finished: ${error instanceof Error ? error.message : String(error)}`,
  )
  process.exitCode = 1
} finally {
  // A database that runs for somebody else goes on running.
  if (own && !own.adopted) await own.stop()
}

/**
 * Everything as it was at one moment: the rows by PostgreSQL's own snapshot, and the files those
 * rows name, none of which goes meanwhile.
 */
async function copySchool(): Promise<Entry[]> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    await client.query('select pg_advisory_lock(hashtextextended($1, 0))', [KEEPING])
    await client.query('begin isolation level repeatable read')
    const { rows: snapshot } = await client.query<{ id: string }>(
      'select pg_export_snapshot() as id',
    )
    dump(snapshot[0]!.id)
    const entries: Entry[] = [{ hash: await hashFile(path.join(target, DATABASE)), name: DATABASE }]
    for (const name of [KEY, 'demo.json'])
      if (existsSync(path.join(dataFolder, name)))
        entries.push({
          hash: await copyChecked(path.join(dataFolder, name), path.join(target, name)),
          name,
        })
    for (const key of await keysNamed(client)) entries.push(await copyFileOf(key))
    await client.query('rollback')
    return entries
  } finally {
    await client.end()
  }
}

function dump(snapshot: string): void {
  const words = [
    '--format=custom',
    `--snapshot=${snapshot}`,
    `--file=${path.join(target, DATABASE)}`,
    '--no-owner',
    '--no-privileges',
    url,
  ]
  const made = spawnSync(path.join(findPostgres()!, 'pg_dump'), words, { encoding: 'utf8' })
  if (made.status !== 0)
    throw new Error(`the database could not be copied: ${made.stderr || String(made.error)}`)
}

/** The stored files that the rows of this snapshot name. */
async function keysNamed(client: pg.Client): Promise<string[]> {
  const { rows: media } = await client.query<{ keptSha256: string; type: MediaType }>(
    'select distinct kept_sha256 as "keptSha256", type from media',
  )
  const { rows: forms } = await client.query<{ key: string }>('select distinct key from media_form')
  const { rows: books } = await client.query<{ id: string }>(
    "select id from book where state = 'ready'",
  )
  const keys = [
    ...media.map(fullKey),
    ...forms.map(({ key }) => key),
    ...books.map(({ id }) => bookKey(id)),
  ]
  return [...new Set(keys)]
}

/** What is named by its own hash has to have it. */
async function copyFileOf(key: string): Promise<Entry> {
  if (!(await storage.about(key))) throw new Error(`a file the school refers to is missing: ${key}`)
  const hash = await storage.withFile(key, (file) => copyChecked(file, placeOf(target, key)))
  const named = /^([0-9a-f]{64})\.\w+$/.exec(key)?.[1]
  if (named && named !== hash) throw new Error(`a file of the school is damaged: ${key}`)
  return { hash, name: path.join(FILES, key.slice(0, 2), key) }
}
