import { TestServer } from '../testing/testServer.ts'

test('health is ok when everything is', async () => {
  const test = await TestServer.start()
  const answer = await test.visitor().ask('GET', '/health')
  expect(answer.body).toEqual({ status: 'ok', database: 'ok', storage: 'ok', queue: 'ok' })
  await test.stop()
})

test('a connection is kept for longer than a proxy keeps one', async () => {
  const test = await TestServer.start()
  const answer = await fetch(`${test.server.url}/api/health`)
  await answer.text()
  const [, seconds] = /timeout=(\d+)/.exec(answer.headers.get('keep-alive') ?? '') ?? []
  expect(Number(seconds)).toBeGreaterThan(60)
  await test.stop()
})
