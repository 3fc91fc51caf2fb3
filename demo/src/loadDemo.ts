import { COLOURS, PEG_SYMBOLS, type PieceState } from '@nibquill/core'
import { schoolDay } from '@nibquill/core/school/calendar'
import type { RunningServer, SetClock } from '@nibquill/server'
import { PersonRow } from '@nibquill/server/school/rows'
import { FolderClassRow, FolderRow, StrandRow } from '@nibquill/server/folders/rows'
import type { SignedIn } from '@nibquill/server/platform/routes'
import {
  ClosedDayRow,
  ClassRow,
  ConsentRow,
  EnrolmentRow,
  SchoolRow,
  SchoolYearRow,
  TermRow,
} from '@nibquill/server/school/rows'
import { TaskMediaRow, TaskRow, UnitRow } from '@nibquill/server/tasks/rows'
import { DateTime } from 'luxon'
import { v7 as newId } from 'uuid'
import { Chance } from './chance.ts'
import { WIND_POEMS } from './drawings.ts'
import { HERON, PLOVER } from './people.ts'
import { photograph } from './photograph.ts'
import { FOLDERS, NEXT_STEPS, PRAISE, REASONS, TASKS, WORKS } from './scenario.ts'

export const ZONE = 'Europe/London'
export const DEMO_PASSWORD = 'salt marsh morning'
/** Printed at start, so that the demo can be entered; a real card's code is kept nowhere. */
export const DEMO_CARDS = {
  Wren: 'ACDEFGHJKMNPRTWX',
  Tomasz: 'CADEFGHJKMNPRTWX',
  Aoife: 'DACEFGHJKMNPRTWX',
} as const
/** Door cards of the two classes. */
export const DEMO_DOORS = { Heron: 'HACDEFGJKMNPRTWX', Plover: 'PACDEFGHJKMNRTWX' } as const
export const DEMO_STAFF = {
  heron: 'adeyemi@saltmarsh.example',
  plover: 'okafor@saltmarsh.example',
} as const
export type DemoSignIns = { parentAddress: string }

type Pupil = { id: string; firstName: string; classId: string; className: 'Heron' | 'Plover' }
type Folders = Map<string, FolderRow>
type Plan = {
  pupil: Pupil
  folder: FolderRow
  task: TaskRow | null
  dayOffset: number
  to: PieceState
  work: (typeof WORKS)[string][number]
  shots: number
  seed: number
  photos?: Promise<Buffer[]>
}
const DRAWN_AHEAD = 3
/** Any number: which hand wrote the example of good work, and how it was photographed. */
const EXAMPLE_SEED = 11

/**
 * Fills an empty school through the real services, with the clock set to when each thing happened.
 * @param small - A few pupils with work instead of all, for tests.
 */
export async function loadDemo(
  server: RunningServer,
  clock: SetClock,
  now: Date,
  tell: (line: string) => void,
  small = false,
): Promise<DemoSignIns> {
  return new Loader(server, clock, now, tell, small).load()
}

class Loader {
  readonly #server: RunningServer
  readonly #clock: SetClock
  readonly #now: Date
  readonly #tell: (line: string) => void
  readonly #small: boolean
  readonly #chance = new Chance(2026)
  readonly #teachers = new Map<string, SignedIn>()
  #schoolId = ''

  #earlierHeronId = ''
  constructor(
    server: RunningServer,
    clock: SetClock,
    now: Date,
    tell: (line: string) => void,
    small: boolean,
  ) {
    this.#server = server
    this.#clock = clock
    this.#now = now
    this.#tell = tell
    this.#small = small
  }

  get #manager() {
    return this.#server.platform.db.manager
  }

  async load(): Promise<DemoSignIns> {
    const years = await this.#makeSchool()
    const pupils = [
      ...(await this.#makeClass('Heron', 'Year 3', HERON, years)),
      ...(await this.#makeClass('Plover', 'Year 1', PLOVER, years)),
    ]
    const folders = await this.#makeFolders(pupils)
    const tasks = await this.#makeTasks(folders, pupils)
    await this.#makeWork(pupils, folders, tasks)
    await this.#makeDailyLife(pupils, folders, tasks)
    this.#clock.set(this.#now)
    return { parentAddress: await this.#inviteParents(pupils) }
  }

  async #makeSchool(): Promise<{ current: string; earlier: string }> {
    const { accounts, passwords } = this.#server.capabilities
    this.#clock.set(this.#at(-500, 9))
    await accounts.setUp({
      schoolName: 'Saltmarsh Primary School',
      timeZone: ZONE,
      firstName: 'Mr',
      lastName: 'Adeyemi',
      email: DEMO_STAFF.heron,
      password: DEMO_PASSWORD,
    })
    const school = await this.#manager.findOneOrFail(SchoolRow, { where: {} })
    this.#schoolId = school.id
    const first = await this.#manager.findOneByOrFail(PersonRow, { email: DEMO_STAFF.heron })
    this.#teachers.set('Heron', this.#asViewer(first.id, 'teacher'))
    const second = newId()
    await this.#manager.insert(PersonRow, {
      id: second,
      schoolId: school.id,
      role: 'teacher',
      firstName: 'Mrs',
      lastName: 'Okafor',
      email: DEMO_STAFF.plover,
      passwordHash: await passwords.hash(DEMO_PASSWORD),
      leads: false,
      createdAt: this.#now,
    })
    this.#teachers.set('Plover', this.#asViewer(second, 'teacher'))
    const startYear = this.#schoolYearStart()
    const years = { current: newId(), earlier: newId() }
    for (const [id, year] of [
      [years.earlier, startYear - 1],
      [years.current, startYear],
    ] as const) {
      const name = `${year}/${String(year + 1).slice(2)}`
      await this.#manager.insert(SchoolYearRow, {
        id,
        schoolId: school.id,
        name,
        startsOn: `${year}-09-01`,
        endsOn: `${year + 1}-08-31`,
      })
      const terms = [
        ['Autumn term', `${year}-09-01`, `${year}-12-31`],
        ['Spring term', `${year + 1}-01-01`, `${year + 1}-04-10`],
        ['Summer term', `${year + 1}-04-11`, `${year + 1}-08-31`],
      ] as const
      await this.#manager.insert(ClosedDayRow, {
        id: newId(),
        schoolYearId: id,
        name: 'Half-term',
        startsOn: `${year}-10-26`,
        endsOn: `${year}-10-30`,
      })
      for (const [term, startsOn, endsOn] of terms)
        await this.#manager.insert(TermRow, {
          id: newId(),
          schoolYearId: id,
          name: `${term} ${startsOn.slice(0, 4)}`,
          startsOn,
          endsOn,
        })
    }
    return years
  }

  /** The class of this year and the one the same pupils sat in last year. */
  async #makeClass(
    name: 'Heron' | 'Plover',
    yearGroup: string,
    names: readonly string[],
    years: { current: string; earlier: string },
  ): Promise<Pupil[]> {
    const classId = newId()
    const earlierId = newId()
    if (name === 'Heron') this.#earlierHeronId = earlierId
    const earlier =
      name === 'Heron'
        ? { name: 'Sandpiper', yearGroup: 'Year 2' }
        : { name: 'Dunlin', yearGroup: 'Reception' }
    await this.#manager.insert(ClassRow, {
      id: earlierId,
      schoolYearId: years.earlier,
      ...earlier,
      idleMinutes: 10,
      pupilsPropose: false,
      version: 1,
    })
    await this.#manager.insert(ClassRow, {
      id: classId,
      schoolYearId: years.current,
      name,
      yearGroup,
      idleMinutes: 10,
      pupilsPropose: true,
      version: 1,
    })
    const teacher = this.#teachers.get(name)!
    await this.#manager.insert(
      EnrolmentRow,
      [classId, earlierId].map((id) => ({ classId: id, personId: teacher.personId })),
    )
    await this.#server.capabilities.doors.issueCard(this.#manager, classId, DEMO_DOORS[name])
    const pupils: Pupil[] = []
    for (const [i, full] of names.entries()) {
      const [firstName, initial] = full.split(' ') as [string, string]
      const id = newId()
      await this.#manager.insert(PersonRow, {
        id,
        schoolId: this.#schoolId,
        role: 'pupil',
        firstName,
        lastName: `${initial}.`,
        pegSymbol: PEG_SYMBOLS[(i + (name === 'Plover' ? 24 : 0)) % PEG_SYMBOLS.length],
        pegColour: COLOURS[(i * 3) % COLOURS.length],
        leads: false,
        createdAt: this.#now,
      })
      await this.#manager.insert(
        EnrolmentRow,
        [classId, earlierId].map((enrolled) => ({ classId: enrolled, personId: id })),
      )
      const code = DEMO_CARDS[firstName as keyof typeof DEMO_CARDS]
      await this.#server.capabilities.nameCards.issue(this.#manager, id, code)
      // Bilal's parents have not said yes: his work is never shared.
      await this.#manager.insert(ConsentRow, {
        pupilId: id,
        kind: 'sharing',
        granted: firstName !== 'Bilal',
        saidBy: teacher.personId,
        saidAt: this.#now,
      })
      pupils.push({ id, firstName, classId, className: name })
    }
    return pupils
  }

  async #makeFolders(pupils: Pupil[]): Promise<Map<'Heron' | 'Plover', Folders>> {
    const strands = new Map<string, string>()
    for (const [position, strand] of [...new Set(FOLDERS.map(({ strand }) => strand))].entries()) {
      strands.set(strand, newId())
      await this.#manager.insert(StrandRow, {
        id: strands.get(strand)!,
        schoolId: this.#schoolId,
        name: strand,
        position,
      })
    }
    const byClass = new Map<'Heron' | 'Plover', Folders>([
      ['Heron', new Map()],
      ['Plover', new Map()],
    ])
    for (const [position, { strand, wholeSchool, ...folder }] of FOLDERS.entries()) {
      const homes = wholeSchool ? ([null] as const) : (['Heron', 'Plover'] as const)
      for (const home of homes) {
        const row: FolderRow = {
          id: newId(),
          schoolId: this.#schoolId,
          wholeSchool: home === null,
          ownerId: null,
          agreedAt: null,
          strandId: strands.get(strand)!,
          ...folder,
          pupilsFile: true,
          position,
          putAwayAt: null,
          version: 1,
        }
        await this.#manager.insert(FolderRow, row)
        const classId = home && pupils.find(({ className }) => className === home)!.classId
        if (classId) await this.#manager.insert(FolderClassRow, { folderId: row.id, classId })
        for (const name of home ? [home] : (['Heron', 'Plover'] as const))
          byClass.get(name)!.set(folder.name, row)
      }
    }
    return byClass
  }

  async #makeTasks(folders: Map<'Heron' | 'Plover', Folders>, pupils: Pupil[]): Promise<TaskRow[]> {
    const tasks: TaskRow[] = []
    for (const name of ['Heron', 'Plover'] as const) {
      for (const { folder, dueInDays, dueHour, ...task } of TASKS[name]) {
        tasks.push({
          id: newId(),
          classId: pupils.find(({ className }) => className === name)!.classId,
          folderId: folders.get(name)!.get(folder)!.id,
          ...task,
          unitId: null,
          strandId: folders.get(name)!.get(folder)!.strandId,
          steps: ['finished'],
          asks: [],
          opensAt: null,
          dueAt: this.#at(dueInDays, dueHour),
          forAll: true,
          position: 0,
          version: 1,
          createdAt: this.#at(-9, 8),
          closedAt: null,
        })
      }
    }
    await this.#manager.insert(TaskRow, tasks)
    return tasks
  }

  async #makeWork(
    pupils: Pupil[],
    folders: Map<'Heron' | 'Plover', Folders>,
    tasks: TaskRow[],
  ): Promise<void> {
    const making = this.#small
      ? pupils.filter(({ firstName }) =>
          ['Wren', 'Tomasz', 'Ifeoma', 'Bilal', 'Aoife'].includes(firstName),
        )
      : pupils
    const plans = making.flatMap((pupil, i) =>
      this.#planWork(pupil, i, folders.get(pupil.className)!, tasks),
    )
    for (const [i, plan] of plans.entries()) {
      if (i % 20 === 0) this.#tell(`drawing the demo school's work: ${i} of ${plans.length} pieces`)
      // Drawing is the slow part: the next pictures are drawn while this one is filed.
      for (const ahead of plans.slice(i, i + DRAWN_AHEAD)) ahead.photos ??= this.#draw(ahead)
      await this.#makePiece(plan, await plan.photos!)
      plan.photos = undefined
    }
  }

  #planWork(pupil: Pupil, i: number, home: Folders, tasks: TaskRow[]): Plan[] {
    const first = pupil.firstName === 'Wren'
    const whole = [...home.values()].filter(({ wholeSchool }) => wholeSchool)
    const make = (
      folder: FolderRow,
      task: TaskRow | null,
      dayOffset: number,
      to: PieceState,
    ): Plan => {
      const chance = this.#chance
      return {
        pupil,
        folder,
        task,
        dayOffset,
        to,
        work: chance.pick(WORKS[folder.name]!),
        shots: chance.next() < 0.15 ? 2 : 1,
        seed: Math.floor(chance.between(0, 1e9)),
      }
    }
    const plans: Plan[] = []
    const earlier = first ? 5 : pupil.className === 'Heron' ? 2 : 1
    for (let n = 0; n < earlier; n++)
      plans.push(make(whole[(i + n) % whole.length]!, null, -80 - 45 * n - (i % 20), 'approved'))
    const now =
      pupil.className === 'Heron'
        ? ['Bread and clay', 'Our village map', 'Rock pools']
        : ['Bread and clay']
    for (const [n, name] of now.slice(0, first ? 3 : 1 + (i % 2)).entries())
      plans.push(make(home.get(name)!, null, -28 + n * 6 - (i % 5), 'approved'))
    for (const [n, task] of tasks.filter(({ classId }) => classId === pupil.classId).entries()) {
      const state = this.#stateFor(pupil, i, n)
      if (state)
        plans.push(
          make(
            [...home.values()].find(({ id }) => id === task.folderId)!,
            task,
            -1 - ((i + n) % 4),
            state,
          ),
        )
    }
    return plans
  }

  async #draw({ work, seed, shots }: Plan): Promise<Buffer[]> {
    return Promise.all(
      Array.from({ length: shots }, (_, shot) => photograph(work.drawing, new Chance(seed + shot))),
    )
  }

  /** Wren: one to do, one on the go, one sent back. The others: some of everything. */
  #stateFor(pupil: Pupil, i: number, task: number): PieceState | null {
    if (pupil.firstName === 'Wren') return (['returned', 'draft', null] as const)[task] ?? null
    return (
      (
        [
          'submitted',
          'approved',
          null,
          'submitted',
          'draft',
          'approved',
          'submitted',
          'returned',
        ] as const
      )[(i * 3 + task * 5) % 8] ?? null
    )
  }

  async #makePiece(
    { pupil, folder, task, dayOffset, to, work, seed }: Plan,
    photos: Buffer[],
  ): Promise<void> {
    const { pieces, parts, review, portfolio, media } = this.#server.capabilities
    const chance = this.#chance
    const viewer = this.#asViewer(pupil.id, 'pupil')
    this.#clock.set(
      this.#at(dayOffset, 9 + Math.floor(chance.between(0, 5)), Math.floor(chance.between(0, 59))),
    )
    const pieceId = newId()
    await pieces.start(viewer, pieceId, { taskId: task?.id ?? null })
    for (const [shot, photo] of photos.entries()) {
      const mediaId = newId()
      await media.arrive(
        { mediaId, ownerId: pupil.id, name: `photo ${shot + 1}`, sha256: null, use: 'part' },
        photo,
      )
      await media.prepare(mediaId)
      await parts.add(viewer, pieceId, newId(), {
        kind: 'photo',
        name: '',
        files: { picture: mediaId },
      })
    }
    // Some write their poem as well, each by their own chance.
    const own = new Chance(seed)
    if (work.titles.includes('My wind poem') && own.next() < 0.5)
      await parts.add(viewer, pieceId, newId(), {
        kind: 'writing',
        name: '',
        text: own.pick(WIND_POEMS).join('\n'),
      })
    let piece = await pieces.describe(pieceId)
    piece = await pieces.change(viewer, pieceId, {
      seenVersion: piece.version,
      title: chance.pick(work.titles),
      reflection: chance.pick(work.thoughts),
      folderId: folder.id,
    })
    if (to === 'draft') return
    piece = await pieces.handIn(viewer, pieceId, piece.version)
    if (to === 'submitted') return
    this.#clock.set(new Date(this.#clock.now().getTime() + 3 * 3600 * 1000))
    const teacher = this.#teachers.get(pupil.className)!
    const message =
      to === 'approved'
        ? chance.pick(PRAISE)
        : pupil.firstName === 'Wren'
          ? NEXT_STEPS[0]!
          : chance.pick(NEXT_STEPS)
    await review.decide(teacher, pieceId, {
      move: to === 'approved' ? 'approve' : 'send-back',
      message,
      seenVersion: piece.version,
    })
    if (to === 'approved' && chance.next() < 0.5)
      await portfolio.putPick(viewer, pupil.id, pieceId, { reason: chance.pick(REASONS) })
  }

  /**
   * What a class in mid-term has around its work: units, a reminder, notices, a wish, a piece for
   * everyone, parents by mail.
   */
  async #makeDailyLife(
    pupils: Pupil[],
    folders: Map<'Heron' | 'Plover', Folders>,
    tasks: TaskRow[],
  ): Promise<void> {
    const { notices, classPieces, folders: shelves, invitations } = this.#server.capabilities
    const heron = this.#teachers.get('Heron')!
    const plover = this.#teachers.get('Plover')!
    const homeOf = (name: 'Heron' | 'Plover') =>
      pupils.find(({ className }) => className === name)!.classId
    await this.#makeUnits(homeOf('Heron'), folders.get('Heron')!.get('Out of class')!.id, tasks)
    this.#clock.set(this.#at(-1, 15))
    const wren = pupils.find(({ firstName }) => firstName === 'Wren')!
    const poem = tasks.findLast(({ classId }) => classId === homeOf('Heron'))
    if (poem) await this.#nudge(poem, wren)
    await notices.make(heron, newId(), {
      classId: homeOf('Heron'),
      audience: 'class',
      words: 'Bring boots on Friday. We go to the shore.',
      mediaIds: [],
    })
    await notices.make(heron, newId(), {
      classId: homeOf('Heron'),
      audience: 'parents',
      words: 'Heron class walks to the shore on Friday. Please send boots and a warm coat.',
      mediaIds: [],
    })
    await classPieces.start(plover, newId(), {
      classId: homeOf('Plover'),
      folderId: folders.get('Plover')!.get('Out of class')!.id,
      title: 'Our walk to the mill',
      instructions: 'Take one photo of something round.',
    })
    const ifeoma = pupils.find(({ firstName }) => firstName === 'Ifeoma')!
    await shelves.propose(this.#asViewer(ifeoma.id, 'pupil'), newId(), {
      name: 'My kites',
      symbol: 'wind',
      colour: 'madder',
    })
    await invitations.inviteParent(
      heron,
      pupils.find(({ firstName }) => firstName === 'Tomasz')!.id,
      newId(),
      {
        firstName: 'Kasia',
        lastName: 'L.',
        email: 'kasia@saltmarsh.example',
      },
    )
  }

  /** A unit that runs, and one of the year before to use again. */
  async #makeUnits(classId: string, folderId: string, tasks: TaskRow[]): Promise<void> {
    const { units } = this.#server.capabilities
    const heron = this.#teachers.get('Heron')!
    this.#clock.set(this.#at(-9, 9))
    const unitId = newId()
    await units.put(heron, unitId, { classId, title: 'Life on the shore' })
    const [survey] = tasks.filter((task) => task.classId === classId)
    if (survey) await this.#manager.update(TaskRow, survey.id, { unitId })
    const before = newId()
    await this.#manager.insert(UnitRow, {
      id: before,
      classId: this.#earlierHeronId,
      title: 'Small animals',
      createdAt: this.#at(-400, 9),
    })
    await this.#manager.insert(TaskRow, {
      id: newId(),
      classId: this.#earlierHeronId,
      unitId: before,
      folderId,
      strandId: null,
      title: 'Find a small animal',
      instructions: 'Draw what you found and where it lives.',
      steps: ['finished'],
      asks: [{ kind: 'photo', count: 1 }],
      opensAt: null,
      dueAt: this.#at(-380, 15),
      folderChangeable: true,
      forAll: true,
      position: 0,
      version: 1,
      createdAt: this.#at(-400, 9),
      closedAt: this.#at(-370, 9),
    })
  }

  /** Somebody is reminded of a task that shows an example. */
  async #nudge(poem: TaskRow, wren: Pupil): Promise<void> {
    const { tasks: tasking, media } = this.#server.capabilities
    const heron = this.#teachers.get('Heron')!
    await tasking.nudge(heron, poem.id, [wren.id])
    const mediaId = newId()
    const page = await photograph('poem', new Chance(EXAMPLE_SEED))
    await media.arrive(
      { mediaId, ownerId: heron.personId, name: 'a wind poem', sha256: null, use: 'attachment' },
      page,
    )
    await media.prepare(mediaId)
    await this.#manager.insert(TaskMediaRow, {
      taskId: poem.id,
      mediaId,
      role: 'example',
      position: 0,
    })
  }

  async #inviteParents(pupils: Pupil[]): Promise<string> {
    const { invitations } = this.#server.capabilities
    const teacher = this.#teachers.get('Heron')!
    const family = pupils.filter(({ firstName }) => firstName === 'Wren' || firstName === 'Aoife')
    const parentId = await invitations.addParent(
      this.#manager,
      this.#schoolId,
      { firstName: 'Bryn', lastName: 'A.' },
      family.map(({ id }) => id),
    )
    return (await invitations.invite(this.#manager, teacher.personId, parentId)).address
  }

  #asViewer(personId: string, role: SignedIn['role']): SignedIn {
    return { sessionId: newId(), personId, role, schoolId: this.#schoolId, leads: false }
  }

  #at(days: number, hour: number, minute = 0): Date {
    const day = DateTime.fromJSDate(this.#now, { zone: ZONE }).plus({ days }).startOf('day')
    // Nothing of the demo happened after this moment, but for what is due.
    const at = day.set({ hour, minute }).toJSDate()
    return days <= 0 && at > this.#now ? new Date(this.#now.getTime() - 60_000) : at
  }

  /** School years start on 1 September. */
  #schoolYearStart(): number {
    const [year, month] = schoolDay(this.#now, ZONE).split('-').map(Number) as [number, number]
    return month >= 9 ? year : year - 1
  }
}
