import { DEMO_CARDS, DEMO_PASSWORD, DEMO_STAFF, loadDemo } from '@nibquill/demo'
import { writeCardCode } from '@nibquill/core'
import { dataFolderOf, readConfig, SetClock, startServer } from '@nibquill/server'
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
  },
})
const dataFolder = dataFolderOf(process.env)
const settings = readConfig(process.env, '')
const demoFile = path.join(dataFolder, 'demo.json')

if (!Number.isInteger(settings.port) || settings.port < 0 || settings.port > 65_535)
  stop(`PORT must be a number from 0 to 65535, not "${process.env.PORT}".`)
if (await isPortTaken(settings.port))
  stop(
    `Port ${settings.port} is in use. Stop what runs there, or choose another: PORT=4400 npm start`,
  )
if (values.fresh) await startOver()
ensureFolder(dataFolder)

const own = process.env.DATABASE_URL ? null : await startCluster(dataFolder)
// From here on a signal must not leave the cluster behind.
let close = async () => {}
let closing = false
const leave = async (code: number) => {
  if (closing) return
  closing = true
  await close().catch((error: unknown) => console.error(String(error)))
  await own?.stop()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.on(signal, () => void leave(0))

try {
  const databaseUrl = process.env.DATABASE_URL ?? (await databaseOf(own!))
  const config = readConfig(process.env, databaseUrl)
  if (!values.empty && !existsSync(demoFile)) await makeDemo(databaseUrl)
  const server = await startServer(config)
  close = server.close
  greet(server.url)
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
  for (const name of ['postgres', 'files', 'arriving', 'secret.key', 'demo.json'])
    rmSync(path.join(dataFolder, name), { recursive: true, force: true })
}

/**
 * Loads the demo through a server of its own whose clock can be set; skipped when a school is there
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
    console.log('Making the demo school, Saltmarsh Primary (once, about a minute) ...')
    const signIns = await loadDemo(
      server,
      clock,
      new Date(),
      (line) => console.log(`  ${line}`),
      values['small-demo'],
    )
    writeFileSync(demoFile, JSON.stringify(signIns))
  }
  await server.close()
  close = async () => {}
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
