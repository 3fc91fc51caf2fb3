import { randomUUID } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import { Agent } from 'node:http'
import os from 'node:os'
import path from 'node:path'
import pg from 'pg'
import sharp from 'sharp'
import { DefaultHttpStack, Upload } from 'tus-js-client'
import { v7 as newId } from 'uuid'
import type { Part, Piece, Problem } from '@nibquill/contract'
import { PersonRow } from '../school/rows.ts'
import { FolderClassRow, FolderRow } from '../folders/rows.ts'
import { SetClock } from '../platform/clock.ts'
import { KEEP_CONNECTIONS_MS, type Config } from '../platform/config.ts'
import {
  ClassRow,
  ConsentRow,
  EnrolmentRow,
  SchoolRow,
  SchoolYearRow,
  TermRow,
} from '../school/rows.ts'
import { startServer, type RunningServer } from '../server.ts'
import { TaskRow } from '../tasks/rows.ts'

/**
 * A connection for each request: one kept open is closed by the server while a busy test holds its
 * own process up.
 */
const httpStack = new DefaultHttpStack({ agent: new Agent({ keepAlive: false }) })

export const PASSWORD = 'a long enough password'

/** The name of the database that is copied for each server under test. */
export const TEMPLATE = 'nibquill_template'

export const testConfig = (database: string, dataFolder: string): Config => ({
  port: 0,
  host: '127.0.0.1',
  dataFolder,
  databaseUrl: process.env.NIBQUILL_TEST_CLUSTER!.replace(/\/postgres$/, `/${database}`),
  // Where many tests run side by side a database may be slow; it is not gone.
  pagePatienceMs: 20_000,
  s3: null,
  publicUrl: 'http://nibquill.example',
  clientFolder: null,
  trustProxy: false,
  keepConnectionsMs: KEEP_CONNECTIONS_MS,
  smtpUrl: null,
  mailFrom: 'Nibquill <nibquill@saltmarsh.example>',
  logLevel: 'silent',
})

/** A real server on a real, empty database. */
export class TestServer {
  readonly server: RunningServer
  readonly clock: SetClock
  readonly config: Config
  constructor(server: RunningServer, clock: SetClock, config: Config) {
    this.server = server
    this.clock = clock
    this.config = config
  }

  static async start(settings: Partial<Config> = {}): Promise<TestServer> {
    const name = `test_${randomUUID().replaceAll('-', '')}`
    await onCluster(async (main) => {
      // A bench has a cluster of its own, without a database to copy.
      const { rowCount } = await main.query('select 1 from pg_database where datname = $1', [
        TEMPLATE,
      ])
      await main.query(`create database ${name} ${rowCount ? `template ${TEMPLATE}` : ''}`)
    })
    const config = {
      ...testConfig(name, await mkdtemp(path.join(os.tmpdir(), 'nibquill-data-'))),
      ...settings,
    }
    const clock = new SetClock(new Date('2026-11-23T10:00:00Z'))
    return new TestServer(await startServer(config, clock), clock, config)
  }

  get manager() {
    return this.server.platform.db.manager
  }

  /** Nothing of it stays: seventy databases take more than a gigabyte. */
  async stop(): Promise<void> {
    await this.server.close()
    await rm(this.config.dataFolder, { recursive: true, force: true })
    const name = new URL(this.config.databaseUrl).pathname.slice(1)
    await onCluster((main) => main.query(`drop database if exists "${name}" with (force)`))
  }

  /** Letters to somebody, as their mail server would have them; the newest last. */
  async lettersTo(to: string): Promise<{ id: string; subject: string; body: string }[]> {
    await until(
      async () =>
        (
          await this.manager.query<unknown[]>(
            `select 1 from graphile_worker.jobs where task_identifier = 'accounts.mail-way-in'`,
          )
        ).length === 0,
    )
    return this.manager.query(
      'select id, subject, body from mail where recipient = $1 order by created_at, id',
      [to],
    )
  }

  visitor(): Person {
    return new Person(this.server.url.replace('localhost', '127.0.0.1'))
  }
}

async function onCluster(work: (main: pg.Client) => Promise<unknown>): Promise<void> {
  const main = new pg.Client({ connectionString: process.env.NIBQUILL_TEST_CLUSTER })
  await main.connect()
  await work(main)
  await main.end()
}

/**
 * What everybody's browser calls itself, unless they have another: a session holds only where it
 * was opened.
 */
const BROWSER = 'Saltmarsh browser 12.0'

export type Answer<T = Record<string, unknown>> = { status: number; body: T; headers: Headers }

/** Somebody with a browser: remembers cookies, sends the origin. */
export class Person {
  readonly at: string
  readonly browser: string
  readonly cookies = new Map<string, string>()
  constructor(at: string, browser = BROWSER) {
    this.at = at
    this.browser = browser
  }

  get cookie(): string {
    return [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ')
  }

  /** The same cookies in another browser, or at another server. */
  copiedInto(browser: string, at = this.at): Person {
    const other = new Person(at, browser)
    for (const [name, value] of this.cookies) other.cookies.set(name, value)
    return other
  }

  async ask<T = Piece & Problem & Record<string, never>>(
    method: string,
    address: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const response = await this.fetch(method, address, {
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      headers: { 'Content-Type': 'application/json', ...headers },
    })
    return {
      status: response.status,
      body: (await response.json().catch(() => null)) as T,
      headers: response.headers,
    }
  }

  async fetch(method: string, address: string, init: RequestInit = {}): Promise<Response> {
    const response = await fetch(`${this.at}/api${address}`, {
      ...init,
      method,
      headers: {
        Cookie: this.cookie,
        Origin: this.at,
        'User-Agent': this.browser,
        ...init.headers,
      },
    })
    for (const set of response.headers.getSetCookie()) {
      const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(set) ?? []
      if (value) this.cookies.set(name, value)
      else this.cookies.delete(name)
    }
    return response
  }

  /** Sends a file as the client does, through an independent tus client. */
  async upload(
    bytes: Uint8Array,
    about: { mediaId?: string; filename?: string; sha256?: string; use?: 'pages' } = {},
  ): Promise<{ mediaId: string; status: number; body: string }> {
    const mediaId = about.mediaId ?? newId()
    return new Promise((resolve) => {
      const upload = new Upload(Buffer.from(bytes), {
        endpoint: `${this.at}/api/media/uploads`,
        metadata: {
          mediaId,
          filename: about.filename ?? 'photo.jpg',
          ...(about.sha256 ? { sha256: about.sha256 } : {}),
          ...(about.use ? { use: about.use } : {}),
        },
        headers: { Cookie: this.cookie, Origin: this.at, 'User-Agent': this.browser },
        retryDelays: null,
        httpStack,
        onSuccess: ({ lastResponse }) =>
          resolve({ mediaId, status: lastResponse.getStatus(), body: lastResponse.getBody() }),
        onError: (error) => {
          const response = 'originalResponse' in error ? error.originalResponse : null
          resolve({
            mediaId,
            status: response?.getStatus() ?? 0,
            body: response?.getBody() ?? String(error),
          })
        },
      })
      upload.start()
    })
  }
}

export const picture = (width = 640, height = 480, background = '#d9704a'): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background } })
    .jpeg()
    .toBuffer()

/** The file of a photo. */
export function pictureOf(part: Part | undefined): string {
  if (part?.kind !== 'photo') throw new Error('not a photo')
  return part.files.picture.mediaId
}

/**
 * A small school: two classes with a teacher each, two pupils in the first, one in the second, a
 * parent each side.
 */
export class SmallSchool {
  readonly test: TestServer
  ids!: Record<
    | 'school'
    | 'term'
    | 'heron'
    | 'plover'
    | 'wren'
    | 'tomasz'
    | 'aoife'
    | 'wrensParent'
    | 'aoifesParent'
    | 'open'
    | 'closed'
    | 'whole'
    | 'task'
    | 'fixedTask',
    string
  >
  wren!: Person
  tomasz!: Person
  aoife!: Person
  teacher!: Person
  otherTeacher!: Person
  parent!: Person
  otherParent!: Person
  constructor(test: TestServer) {
    this.test = test
  }

  static async open(test: TestServer): Promise<SmallSchool> {
    const school = new SmallSchool(test)
    await school.#fill()
    return school
  }

  async #fill(): Promise<void> {
    const { manager, server, clock } = this.test
    const now = clock.now()
    const names = [
      'term',
      'heron',
      'plover',
      'wren',
      'tomasz',
      'aoife',
      'open',
      'closed',
      'whole',
      'task',
      'fixedTask',
    ] as const
    const ids = Object.fromEntries(names.map((name) => [name, newId()])) as SmallSchool['ids']
    this.teacher = this.test.visitor()
    await this.teacher.ask('POST', '/accounts/first-run', {
      schoolName: 'Saltmarsh Primary School',
      timeZone: 'Europe/London',
      firstName: 'Mr',
      lastName: 'Adeyemi',
      email: 'a@saltmarsh.example',
      password: PASSWORD,
    })
    ids.school = (await manager.findOneOrFail(SchoolRow, { where: {} })).id
    const firstTeacher = await manager.findOneByOrFail(PersonRow, { email: 'a@saltmarsh.example' })
    const second = {
      id: newId(),
      schoolId: ids.school,
      role: 'teacher' as const,
      firstName: 'Mrs',
      lastName: 'Okafor',
      email: 'o@saltmarsh.example',
      passwordHash: await server.capabilities.passwords.hash(PASSWORD),
      leads: false,
      createdAt: now,
    }
    await manager.insert(PersonRow, second)
    const yearId = newId()
    await manager.insert(SchoolYearRow, {
      id: yearId,
      schoolId: ids.school,
      name: '2026/27',
      startsOn: '2026-09-01',
      endsOn: '2027-08-31',
    })
    await manager.insert(TermRow, {
      id: ids.term,
      schoolYearId: yearId,
      name: 'Autumn term 2026',
      startsOn: '2026-09-01',
      endsOn: '2026-12-31',
    })
    for (const name of ['heron', 'plover'] as const)
      await manager.insert(ClassRow, {
        id: ids[name],
        schoolYearId: yearId,
        name,
        yearGroup: 'Year 3',
        idleMinutes: 10,
        pupilsPropose: true,
        young: false,
        sounds: false,
        version: 1,
      })
    const pupils = [
      ['wren', 'heron', 'fish'],
      ['tomasz', 'heron', 'kite'],
      ['aoife', 'plover', 'owl'],
    ] as const
    for (const [name, home, symbol] of pupils) {
      await manager.insert(PersonRow, {
        id: ids[name],
        schoolId: ids.school,
        role: 'pupil',
        firstName: name,
        lastName: 'A.',
        pegSymbol: symbol,
        pegColour: 'sea',
        leads: false,
        createdAt: now,
      })
      await manager.insert(EnrolmentRow, { classId: ids[home], personId: ids[name] })
      await manager.insert(ConsentRow, {
        pupilId: ids[name],
        kind: 'sharing',
        granted: true,
        saidBy: firstTeacher.id,
        saidAt: now,
      })
      const code = await server.capabilities.nameCards.issue(manager, ids[name])
      this[name] = this.test.visitor()
      await this[name].ask('POST', '/accounts/sign-in/card', { code })
    }
    await manager.insert(EnrolmentRow, [
      { classId: ids.heron, personId: firstTeacher.id },
      { classId: ids.plover, personId: second.id },
    ])
    this.otherTeacher = this.test.visitor()
    await this.otherTeacher.ask('POST', '/accounts/sign-in/password', {
      email: 'o@saltmarsh.example',
      password: PASSWORD,
    })
    const folder = {
      schoolId: ids.school,
      strandId: null,
      symbol: 'waves' as const,
      colour: 'sea' as const,
      wholeSchool: false,
      pupilsFile: true,
      position: 0,
      putAwayAt: null,
      version: 1,
    }
    await manager.insert(FolderRow, {
      ...folder,
      id: ids.open,
      name: 'Rock pools',
      parentsSee: true,
    })
    await manager.insert(FolderRow, {
      ...folder,
      id: ids.closed,
      name: 'Number talks',
      parentsSee: false,
    })
    await manager.insert(FolderRow, {
      ...folder,
      id: ids.whole,
      wholeSchool: true,
      name: 'Out of class',
      parentsSee: true,
    })
    await manager.insert(
      FolderClassRow,
      [ids.open, ids.closed].map((folderId) => ({ folderId, classId: ids.heron })),
    )
    const task = {
      classId: ids.heron,
      folderId: ids.open,
      title: 'Rock pool survey',
      instructions: 'Draw it.',
      steps: ['finished' as const],
      asks: [],
      sheetExpected: null,
      sheetOffered: false,
      forAll: true,
      position: 0,
      version: 1,
      dueAt: null,
      createdAt: now,
      closedAt: null,
    }
    await manager.insert(TaskRow, {
      ...task,
      id: ids.task,
      folderChangeable: true,
      asksThoughts: false,
    })
    await manager.insert(TaskRow, {
      ...task,
      id: ids.fixedTask,
      folderChangeable: false,
      asksThoughts: true,
    })
    const { guardians, invitations } = server.capabilities
    for (const [person, child] of [
      ['parent', 'wren'],
      ['otherParent', 'aoife'],
    ] as const) {
      const id = await guardians.addParent(
        manager,
        ids.school,
        { firstName: 'Bryn', lastName: child },
        [ids[child]],
      )
      ids[person === 'parent' ? 'wrensParent' : 'aoifesParent'] = id
      const { address } = await invitations.invite(manager, firstTeacher.id, id)
      const token = address.split('/').at(-1)!
      this[person] = this.test.visitor()
      await this[person].ask('POST', '/accounts/sign-in/invitation', { token })
    }
    this.ids = ids
  }

  /** A piece of Wren's with one photo, or the part that is given, in a folder, still a draft. */
  async draft(
    options: { folderId?: string; bytes?: Uint8Array; person?: Person; part?: object } = {},
  ): Promise<Piece> {
    const person = options.person ?? this.wren
    const id = newId()
    await person.ask('PUT', `/pieces/${id}`, { taskId: null })
    const photo = async () => ({
      kind: 'photo',
      files: {
        picture: (await person.upload(options.bytes ?? (await picture()))).mediaId,
      },
      name: 'photo',
    })
    const part = options.part ?? (await photo())
    const { body } = await person.ask('PUT', `/pieces/${id}/parts/${newId()}`, part)
    return (
      await person.ask('PATCH', `/pieces/${id}`, {
        seenVersion: body.version,
        title: 'Rock pool crab',
        reflection: 'It walks sideways.',
        folderId: options.folderId ?? this.ids.open,
      })
    ).body
  }

  async submitted(options: Parameters<SmallSchool['draft']>[0] = {}): Promise<Piece> {
    const piece = await this.draft(options)
    return (
      await (options?.person ?? this.wren).ask('POST', `/pieces/${piece.id}/hand-in`, {
        seenVersion: piece.version,
      })
    ).body
  }

  async approved(options: Parameters<SmallSchool['draft']>[0] = {}): Promise<Piece> {
    const piece = await this.submitted(options)
    return (
      await this.teacher.ask('POST', `/review/pieces/${piece.id}`, {
        move: 'approve',
        message: '',
        seenVersion: piece.version,
      })
    ).body
  }
}

/** A small school for all tests of a file, on a server of its own. */
export function useSmallSchool(
  opened: (at: { test: TestServer; school: SmallSchool }) => void,
): void {
  let test: TestServer
  beforeAll(async () => {
    test = await TestServer.start()
    opened({ test, school: await SmallSchool.open(test) })
  })
  afterAll(() => test.stop())
}

/** Waits until something becomes true. */
export async function until<T>(
  ask: () => Promise<T | null | false | undefined>,
  patienceMs = 60_000,
): Promise<T> {
  const deadline = Date.now() + patienceMs
  for (;;) {
    const found = await ask()
    if (found) return found
    if (Date.now() > deadline) throw new Error('it did not happen in time')
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}
