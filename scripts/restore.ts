// npm run restore -- FOLDER [--overwrite]: a school from a copy that npm run backup made.
import { dataFolderOf, s3Of } from '@nibquill/server/platform/config'
import { openStorage } from '@nibquill/server/platform/openStorage'
import { spawnSync } from 'node:child_process'
import { rm } from 'node:fs/promises'
import path from 'node:path'
import { parseArgs } from 'node:util'
import pg from 'pg'
import { ensureDatabase, findPostgres, startCluster } from './cluster.mjs'
import { copyChecked, DATABASE, FILES, findDamaged, readManifest } from './copyOfSchool.ts'
import { ensureFolder, stop } from './setup.mjs'

const { values, positionals } = parseArgs({
  options: { overwrite: { type: 'boolean' } },
  allowPositionals: true,
})
const folder = positionals[0] && path.resolve(positionals[0])
if (!folder) stop('Say where the copy lies: npm run restore -- /media/disk/nibquill-monday')
const source = folder!
const dataFolder = dataFolderOf(process.env)
const bucket = s3Of(process.env)
const storage = await openStorage({ s3: bucket, dataFolder })

const entries = await readManifest(source).catch((error: Error) => stop(error.message))
const damaged = await findDamaged(source, entries ?? [])
if (damaged.length > 0)
  stop(
    `Nothing was changed: the copy is damaged. Not as they were: ${damaged.slice(0, 10).join(', ')}`,
  )

ensureFolder(dataFolder)
const own = process.env.DATABASE_URL ? null : await startCluster(dataFolder)
let refusal: string | null = null
try {
  if (own) await ensureDatabase(pg, own.url, 'nibquill')
  const url = process.env.DATABASE_URL ?? own!.url('nibquill')
  refusal = await refusalOf(url)
  if (!refusal) {
    // Files first: rows that name files which are not there yet would be shown as damaged; files
    // without rows harm nobody.
    for (const { name } of entries!) if (name !== DATABASE) await putBack(name)
    restoreRows(url)
    await rm(path.join(dataFolder, 'arriving'), { recursive: true, force: true })
    console.log(
      `The school is back as it was copied, ${entries!.length} files checked. Start it with: npm start`,
    )
  }
} catch (error) {
  refusal = `The school could not be brought back: ${error instanceof Error ? error.message : String(error)}`
} finally {
  if (own && !own.adopted) await own.stop()
}
if (refusal) stop(refusal)

/** One file of the copy: into the store it came from, or beside the database. */
async function putBack(name: string): Promise<void> {
  const from = path.join(source, name)
  if (bucket && name.startsWith(`${FILES}/`)) await storage.put(path.basename(name), { file: from })
  else await copyChecked(from, path.join(dataFolder, name))
}

/** Why a copy may not be put here, or null. */
async function refusalOf(url: string): Promise<string | null> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    const { rows: others } = await client.query(
      'select 1 from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    )
    if (others.length > 0) return 'Nothing was changed: Nibquill is running. Stop it first.'
    const { rows: tables } = await client.query<{ there: boolean }>(
      `select to_regclass('public.school') is not null as there`,
    )
    if (!tables[0]!.there) return null
    const { rows: schools } = await client.query<{ name: string }>('select name from school')
    if (schools.length === 0 || values.overwrite) return null
    return `Nothing was changed: ${dataFolder} holds ${schools[0]!.name} with its work. To replace it for good, add --overwrite.`
  } finally {
    await client.end()
  }
}

/**
 * In one transaction: either the school that was there stays, or the copy has taken its place
 * whole.
 */
function restoreRows(url: string): void {
  const bin = findPostgres()!
  const script = spawnSync(
    path.join(bin, 'pg_restore'),
    ['--no-owner', '--no-privileges', '--file=-', path.join(source, DATABASE)],
    {
      maxBuffer: 4 * 1024 ** 3,
    },
  )
  if (script.status !== 0) throw new Error(String(script.stderr))
  const clear =
    'drop schema if exists graphile_worker cascade; drop schema public cascade; create schema public;\n'
  const done = spawnSync(
    path.join(bin, 'psql'),
    ['--quiet', '--no-psqlrc', '--single-transaction', '-v', 'ON_ERROR_STOP=1', url],
    {
      input: Buffer.concat([Buffer.from(clear), script.stdout]),
      stdio: ['pipe', 'ignore', 'pipe'],
      maxBuffer: 1024 ** 2,
    },
  )
  if (done.status !== 0) throw new Error(String(done.stderr))
}
