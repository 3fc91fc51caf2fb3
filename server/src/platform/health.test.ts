import { TestServer } from '../testing/testServer.ts'

test('health is ok when everything is', async () => {
  const test = await TestServer.start()
  const answer = await test.visitor().ask('GET', '/health')
  expect(answer.body).toEqual({ status: 'ok', database: 'ok', storage: 'ok', queue: 'ok' })
  await test.stop()
})
