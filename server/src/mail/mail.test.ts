import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { SMTPServer } from 'smtp-server'
import { v7 as newId } from 'uuid'
import type { PostBox } from '@nibquill/contract'
import { SmallSchool, TestServer, until } from '../testing/testServer.ts'

/** A mail server that keeps what it is given, and refuses everything while `closed`. */
async function openMailServer(): Promise<{
  url: string
  letters: { to: string; text: string }[]
  refuse: (closed: boolean) => void
  close: () => void
}> {
  const letters: { to: string; text: string }[] = []
  let closed = false
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo: (_address, _session, done) => done(closed ? new Error('not now') : null),
    onData: (stream, session, done) => {
      const chunks: Buffer[] = []
      stream.on('data', (chunk: Buffer) => chunks.push(chunk))
      stream.on('end', () => {
        letters.push({
          to: session.envelope.rcptTo[0]!.address,
          text: plainText(Buffer.concat(chunks)),
        })
        done()
      })
    },
  })
  server.listen(0, '127.0.0.1')
  await once(server.server, 'listening')
  const { port } = server.server.address() as AddressInfo
  return {
    url: `smtp://127.0.0.1:${port}`,
    letters,
    refuse: (now) => void (closed = now),
    close: () => server.close(() => undefined),
  }
}

/** Quoted-printable lines put together again. @see RFC 2045, section 6.7 */
const plainText = (bytes: Buffer): string => bytes.toString('utf8').replace(/=\r?\n/g, '')

test('with a mail server set, letters go out and their links are kept nowhere; while it refuses, the letter waits and is tried again', async () => {
  const mailServer = await openMailServer()
  const test_ = await TestServer.start({ smtpUrl: mailServer.url })
  const school = await SmallSchool.open(test_)
  const box = async () => (await school.teacher.ask<PostBox>('GET', '/mail')).body
  const invite = (email: string) =>
    school.teacher.ask('PUT', `/sharing/pupils/${school.ids.wren}/parents/${newId()}`, {
      firstName: 'Bryn',
      lastName: '',
      email,
    })
  await invite('bryn@saltmarsh.example')
  await until(async () => (await box()).mails.every(({ state }) => state === 'sent'))
  expect((await box()).server).toBe(true)
  expect(mailServer.letters).toHaveLength(1)
  const [letter] = mailServer.letters
  expect(letter!.to).toBe('bryn@saltmarsh.example')
  expect(letter!.text).toMatch(/From: Nibquill <nibquill@saltmarsh\.example>/)
  expect(letter!.text).toMatch(/http:\/\/nibquill\.example\/invitation\//)
  expect((await box()).mails[0]).toMatchObject({ to: 'bryn@saltmarsh.example', state: 'sent' })
  expect(await test_.lettersTo('bryn@saltmarsh.example')).toMatchObject([{ body: '' }])

  mailServer.refuse(true)
  await invite('nerys@saltmarsh.example')
  await until(async () => (await box()).mails[0]!.state === 'failed')
  mailServer.refuse(false)
  // The queue waits longer after each failure; here it is told not to.
  await test_.manager.query(
    'update graphile_worker._private_jobs set run_at = now() where locked_at is null',
  )
  await until(async () => (await box()).mails[0]!.state === 'sent')
  expect(mailServer.letters.map(({ to }) => to)).toEqual([
    'bryn@saltmarsh.example',
    'nerys@saltmarsh.example',
  ])
  await test_.stop()
  mailServer.close()
})
