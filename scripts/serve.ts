import {
  beginDemo,
  DEMO_CARDS,
  DEMO_PASSWORD,
  DEMO_STAFF,
  fillDemo,
  untilPrepared,
  type DemoRest,
} from '@nibquill/demo'
import { writeCardCode } from '@nibquill/core'
import {
  dataFolderOf,
  openNibquill,
  readConfig,
  SetClock,
  startServer,
  type Config,
} from '@nibquill/server'
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import path from 'node:path'
import { parseArgs } from 'node:util'
import pg from 'pg'
import { ensureDatabase, startCluster } from './cluster.mjs'
import { ensureFolder, stop } from './setup.mjs'

const { values } = parseArgs({
  options: {
    fresh: { type: 'boolean' },
    empty: { type: 'boolean' },
    'small-demo': { type: 'boolean' },
    // For tests: nothing is flushed to disk.
    throwaway: { type: 'boolean' },
    // The client as well, meanwhile.
    build: { type: 'boolean' },
  },
})
const dataFolder = dataFolderOf(process.env)
const settings = readConfig(process.env, '')
const demoFile = path.join(dataFolder, 'demo.json')
/** What is still to be made of the demo. */
const restFile = path.join(dataFolder, 'demo-rest.json')
/** So often it is written down how far that is; what was made twice changes nothing. */
const WRITTEN_EVERY = 10

if (!Number.isInteger(settings.port) || settings.port < 0 || settings.port > 65_535)
  stop(`PORT must be a number from 0 to 65535, not "${process.env.PORT}".`)
if (await isPortTaken(settings.port))
  stop(
    `Port ${settings.port} is in use. Stop what runs there, or choose another: PORT=4400 npm start`,
  )
if (values.fresh) await startOver()
ensureFolder(dataFolder)

const own = process.env.DATABASE_URL ? null : await startCluster(dataFolder, values)
// From here on a signal must not leave the cluster behind.
let close = async () => {}
let closing = false
let building: ChildProcess | null = null
const leave = async (code: number) => {
  if (closing) return
  closing = true
  building?.kill()
  await close().catch((error: unknown) => console.error(String(error)))
  await own?.stop()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.on(signal, () => void leave(0))

try {
  const databaseUrl = process.env.DATABASE_URL ?? (await databaseOf(own!))
  const config = readConfig(process.env, databaseUrl)
  const built = values.build ? buildClient() : Promise.resolve()
  // Looked at below; until then it must not count as one nobody handles.
  built.catch(() => undefined)
  if (!values.empty && !existsSync(demoFile)) await makeDemo(databaseUrl)
  await built
  const server = await startServer(config)
  const stopFilling = new AbortController()
  let filled: Promise<void> = Promise.resolve()
  close = async () => {
    stopFilling.abort()
    await filled
    await server.close()
  }
  greet(server.url)
  if (existsSync(restFile))
    filled = fill(config, stopFilling.signal).catch((error: unknown) =>
      console.error(`The demo school could not be filled: ${String(error)}`),
    )
} catch (error) {
  console.error(
    `Nibquill could not start: ${error instanceof Error ? error.message : String(error)}`,
  )
  await leave(1)
}

async function databaseOf(cluster: NonNullable<typeof own>): Promise<string> {
  await ensureDatabase(pg, cluster.url, 'nibquill')
  return cluster.url('nibquill')
}

async function startOver(): Promise<void> {
  // Only what we made: the folder may be one somebody else keeps things in.
  if (existsSync(path.join(dataFolder, 'postgres'))) await (await startCluster(dataFolder)).stop()
  for (const name of ['postgres', 'files', 'arriving', 'secret.key', 'demo.json', 'demo-rest.json'])
    rmSync(path.join(dataFolder, name), { recursive: true, force: true })
}

/** In a process of its own: it holds its own up while it works. */
async function buildClient(): Promise<void> {
  building = spawn(process.execPath, [path.resolve('scripts/buildClient.mjs')], {
    stdio: 'inherit',
  })
  const [code] = (await once(building, 'close')) as [number | null]
  building = null
  if (code !== 0) throw new Error('the web client could not be built')
}

/**
 * Begins the demo through a server of its own whose clock can be set; skipped when a school is there
 * already.
 */
async function makeDemo(databaseUrl: string): Promise<void> {
  const clock = new SetClock(new Date())
  const server = await startServer(
    {
      ...readConfig(process.env, databaseUrl),
      port: 0,
      host: '127.0.0.1',
      clientFolder: null,
      logLevel: 'error',
    },
    clock,
  )
  close = server.close
  const [school] = await server.platform.db.query<{ id: string }[]>('select id from school limit 1')
  if (!school) {
    console.log('Making the demo school, Saltmarsh Primary (once) ...')
    const { parentAddress, rest } = await beginDemo(server, clock, new Date(), tell)
    if (values['small-demo']) await untilPrepared(server.platform.db)
    else writeFileSync(restFile, JSON.stringify(rest))
    writeFileSync(demoFile, JSON.stringify({ parentAddress }))
  }
  await server.close()
  close = async () => {}
}

/**
 * Makes the rest of the demo while people are looking already; cut off, the next start goes on
 * where this one was.
 */
async function fill(config: Config, stopping: AbortSignal): Promise<void> {
  const rest = JSON.parse(readFileSync(restFile, 'utf8')) as DemoRest
  const clock = new SetClock(new Date())
  const opened = await openNibquill({ ...config, logLevel: 'error' }, clock)
  const left = new Map(rest.pieces.map((piece) => [piece.id, piece]))
  const write = () =>
    writeFileSync(restFile, JSON.stringify({ ...rest, pieces: [...left.values()] }))
  const onMade = (id: string) => {
    left.delete(id)
    if (left.size % WRITTEN_EVERY === 0) write()
  }
  try {
    console.log('The rest of its work arrives behind:')
    await fillDemo(opened, clock, rest, tell, onMade, stopping)
    if (left.size > 0) return
    rmSync(restFile, { force: true })
    console.log('The demo school is whole.')
  } finally {
    await opened.close()
  }
}

function tell(line: string): void {
  console.log(`  ${line}`)
}

function greet(url: string): void {
  console.log(`\nNibquill is ready: ${url}\n`)
  if (!existsSync(demoFile)) return
  const { parentAddress } = JSON.parse(readFileSync(demoFile, 'utf8')) as { parentAddress: string }
  for (const [name, code] of Object.entries(DEMO_CARDS))
    console.log(`  pupil    ${name.padEnd(7)} ${writeCardCode(code)}`)
  for (const email of Object.values(DEMO_STAFF))
    console.log(`  teacher  ${email}, password: ${DEMO_PASSWORD}`)
  // The address may be another than when the demo was made.
  console.log(`  parent   ${settings.publicUrl}${new URL(parentAddress).pathname}\n`)
}

function isPortTaken(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    if (port === 0) return resolve(false)
    const probe = createServer()
    probe.once('error', (error: NodeJS.ErrnoException) => resolve(error.code === 'EADDRINUSE'))
    probe.listen(port, settings.host, () => probe.close(() => resolve(false)))
  })
}
