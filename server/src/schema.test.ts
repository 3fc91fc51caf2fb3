import { SCHEMA } from './schema.ts'
import { TestServer } from './testing/testServer.ts'

test('entities and migrations describe the same tables', async () => {
  const test = await TestServer.start()
  const drift = await test.server.platform.db.driver.createSchemaBuilder().log()
  expect(drift.upQueries.map(({ query }) => query)).toEqual([])
  const tables = await test.manager.query<{ name: string }[]>(
    `select tablename as name from pg_tables where schemaname = 'public' and tablename not in ('migration', 'sign_in_try')`,
  )
  expect(tables.map(({ name }) => name).sort()).toEqual(
    SCHEMA.rows.map(({ options }) => options.name).sort(),
  )
  await test.stop()
})
