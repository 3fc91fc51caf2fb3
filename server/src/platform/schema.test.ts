import { TestServer } from '../testing/testServer.ts'

test('entities and migrations describe the same tables', async () => {
  const test = await TestServer.start()
  const drift = await test.server.platform.db.driver.createSchemaBuilder().log()
  expect(drift.upQueries.map(({ query }) => query)).toEqual([])
  await test.stop()
})
