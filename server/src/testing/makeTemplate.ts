// The database that server tests copy: migrated by a server of its own, so that the queue has its
// tables as well, and empty.
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import pg from 'pg'
import { startServer } from '../server.ts'
import { TEMPLATE, testConfig } from './testServer.ts'

const main = new pg.Client({ connectionString: process.env.NIBQUILL_TEST_CLUSTER })
await main.connect()
await main.query(`create database ${TEMPLATE}`)
const dataFolder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-data-'))
await (await startServer(testConfig(TEMPLATE, dataFolder))).close()
await rm(dataFolder, { recursive: true, force: true })
await main.end()
