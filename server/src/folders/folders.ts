import type {
  ChangeFolder,
  Folder,
  FolderDetail,
  FolderQuery,
  MakeFolder,
  PieceLine,
  ProposeFolder,
  Strand,
} from '@nibquill/contract'
import { DomainError, FIRST_STRANDS, READY_FOLDERS } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { approvedMakers, madeApproved, taughtNow } from '../access/facts.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import { note } from '../platform/audit.ts'
import { readCursor, writeCursor } from '../platform/cursor.ts'
import { tell } from '../platform/live.ts'
import { makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, empty, raw, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { liesIn } from './keptFolders.ts'
import { FolderClassRow, FolderRow, StrandRow } from './rows.ts'
import { inClass, seenBy } from './seenBy.ts'

const PAGE = 60

/**
 * Lists approved pieces `p` as the pieces' own capability shows them: pieces know folders, not the
 * other way round.
 * @param tail - SQL after the select.
 */
export type ListApproved = (manager: EntityManager, tail: Sql) => Promise<PieceLine[]>

/** Whom a folder is for and what they may do. */
export type Home = {
  wholeSchool: boolean
  classIds: string[]
  parentsSee: boolean
  pupilsFile: boolean
}

/** Folders, what has been approved into them, and the strands they belong to. */
export class Folders {
  readonly #platform: Platform
  readonly #listApproved: ListApproved
  constructor(platform: Platform, listApproved: ListApproved) {
    this.#platform = platform
    this.#listApproved = listApproved
  }

  /**
   * A pupil's folders count their own pieces; a teacher's those of their classes. Proposals are
   * seen by their owner and by teachers.
   */
  async list(viewer: SignedIn, options: { away: boolean }): Promise<Folder[]> {
    return ask(
      this.#platform.db.manager,
      sql`${selectFor(viewer, this.#platform.clock.now())} where f.school_id = ${viewer.schoolId} and (f.put_away_at is not null) = ${options.away} and ${seenBy(viewer)}
       order by f.position, f.name, f.id`,
    )
  }

  async describe(
    viewer: SignedIn,
    folderId: string,
    { after, words = '', month }: FolderQuery = {},
  ): Promise<FolderDetail> {
    const manager = this.#platform.db.manager
    const cursor = readCursor(after)
    const pieces = await this.#listApproved(
      manager,
      sql`join folder home on home.id = p.approved_folder_id
       where ${liesIn(viewer, sql`${folderId}::uuid`)} and p.binned_at is null and ${mine(viewer, 'home', this.#platform.clock.now())}
         ${cursor ? sql`and (p.approved_at, p.id) < (${cursor.at}, ${cursor.id})` : empty}
         ${words ? holdsWords(words) : empty} ${month ? sql`and ${MONTH} = ${month}` : empty}
       order by p.approved_at desc, p.id desc limit ${PAGE + 1}`,
    )
    const months = await ask<{ month: string }>(
      manager,
      sql`select distinct ${MONTH} as month from piece p join folder home on home.id = p.approved_folder_id
       where ${liesIn(viewer, sql`${folderId}::uuid`)} and p.binned_at is null and ${mine(viewer, 'home', this.#platform.clock.now())} order by 1 desc`,
    )
    return {
      ...(await this.#find(viewer, folderId)),
      ...(await this.#page(pieces)),
      months: months.map((row) => row.month),
    }
  }

  async #find(viewer: SignedIn, folderId: string): Promise<Folder> {
    const [folder] = await ask<Folder>(
      this.#platform.db.manager,
      sql`${selectFor(viewer, this.#platform.clock.now())} where f.school_id = ${viewer.schoolId} and f.id = ${folderId}`,
    )
    if (!folder) throw new DomainError('folder/not-found')
    return folder
  }

  /**
   * Again with the same id it answers with the folder that is there.
   * @throws DomainError `folder/not-found` when the id is another folder's
   */
  async make(viewer: SignedIn, folderId: string, input: MakeFolder): Promise<Folder> {
    const { classIds, ...folder } = input
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, FolderRow, folderId, {
        found: (there) => this.#refuseOther(manager, there, input),
        make: async () => {
          await this.#insert(manager, viewer, { id: folderId, ...folder }, classIds)
          await note(manager, this.#platform.clock.now(), viewer.personId, 'folder.make', folderId)
        },
      })
    })
    return this.#find(viewer, folderId)
  }

  /** A retry finds what it made; somebody else's folder is not shown to it. */
  async #refuseOther(
    manager: EntityManager,
    there: FolderRow,
    { wholeSchool, classIds }: MakeFolder,
  ): Promise<void> {
    const homes = (await manager.findBy(FolderClassRow, { folderId: there.id })).map(
      ({ classId }) => classId,
    )
    const same =
      there.wholeSchool === wholeSchool &&
      (wholeSchool || homes.some((classId) => classIds.includes(classId)))
    if (!same || there.ownerId) throw new DomainError('folder/not-found')
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    folder: Omit<MakeFolder, 'classIds'> & { id: string; ownerId?: string },
    classIds: readonly string[],
  ): Promise<void> {
    const [{ position } = { position: 0 }] = await manager.query<{ position: number }[]>(
      'select coalesce(max(position), -1) + 1 as position from folder where school_id = $1',
      [viewer.schoolId],
    )
    await manager.insert(FolderRow, {
      ...folder,
      schoolId: viewer.schoolId,
      ownerId: folder.ownerId ?? null,
      agreedAt: null,
      position,
      putAwayAt: null,
      version: 1,
    })
    if (!folder.wholeSchool && classIds.length > 0)
      await manager.insert(
        FolderClassRow,
        classIds.map((classId) => ({ folderId: folder.id, classId })),
      )
    await this.#tellClasses(manager, folder.id)
  }

  /**
   * @param demandHome - Throws when the viewer may not change folders of such a home.
   * @throws DomainError `folder/stale` when a second teacher changed it first; `folder/shared` when
   *   a class would be taken out, or
   * parents let see, of a folder that is also for classes the viewer has no right over
   */
  async change(
    viewer: SignedIn,
    folderId: string,
    input: ChangeFolder,
    demandHome: (home: Pick<Home, 'wholeSchool' | 'classIds'>) => Promise<void>,
  ): Promise<Folder> {
    const { seenVersion, classIds, ...change } = input
    await this.#platform.db.transaction(async (manager) => {
      const before = await this.#lockHome(manager, folderId)
      const added = classIds.filter((id) => !before.classIds.includes(id))
      // Whoever may change it at all may leave it to those it is for already.
      await demandHome({
        wholeSchool: change.wholeSchool && !before.wholeSchool,
        classIds: change.wholeSchool ? [] : added,
      })
      const losesClass =
        before.wholeSchool !== change.wholeSchool ||
        before.classIds.some((id) => !classIds.includes(id))
      if (losesClass || before.parentsSee !== change.parentsSee)
        await demandHome(before).catch((refusal: unknown) => {
          throw refusal instanceof DomainError ? new DomainError('folder/shared') : refusal
        })
      const { affected } = await manager.update(
        FolderRow,
        { id: folderId, version: seenVersion },
        { ...change, version: seenVersion + 1 },
      )
      if (!affected) throw new DomainError('folder/stale')
      await manager.delete(FolderClassRow, { folderId })
      if (!change.wholeSchool)
        await manager.insert(
          FolderClassRow,
          classIds.map((classId) => ({ folderId, classId })),
        )
      const { wholeSchool, parentsSee, pupilsFile } = change
      const after = { wholeSchool, parentsSee, pupilsFile, classIds }
      await note(manager, this.#platform.clock.now(), viewer.personId, 'folder.change', folderId, {
        before,
        after,
      })
      await this.#tellClasses(manager, folderId)
    })
    return this.#find(viewer, folderId)
  }

  /** Whom a folder is for, held until the transaction ends. */
  async #lockHome(manager: EntityManager, folderId: string): Promise<Home> {
    const row = await manager.findOne(FolderRow, {
      where: { id: folderId },
      lock: { mode: 'pessimistic_write' },
    })
    if (!row) throw new DomainError('folder/not-found')
    const classIds = (await manager.findBy(FolderClassRow, { folderId })).map(
      ({ classId }) => classId,
    )
    return {
      wholeSchool: row.wholeSchool,
      parentsSee: row.parentsSee,
      pupilsFile: row.pupilsFile,
      classIds,
    }
  }

  /** Out of the way, with everything in it kept; or back on the shelf. */
  async putAway(viewer: SignedIn, folderId: string, options: { back: boolean }): Promise<Folder> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.query(
        'update folder set put_away_at = $2, version = version + 1 where id = $1',
        [folderId, options.back ? null : now],
      )
      await note(
        manager,
        now,
        viewer.personId,
        options.back ? 'folder.take-out' : 'folder.put-away',
        folderId,
      )
      await this.#tellClasses(manager, folderId)
    })
    return this.#find(viewer, folderId)
  }

  /**
   * Sets the order of the folders named; those the viewer may not change keep their place among the
   * others.
   */
  async order(viewer: SignedIn, ids: readonly string[]): Promise<Folder[]> {
    await this.#platform.db.transaction(async (manager) => {
      const own = (await this.list(viewer, { away: false })).map(({ id }) => id)
      const wanted = ids.filter((id) => own.includes(id))
      // The places these folders hold are given out anew among them, so that nobody else's folder
      // moves.
      const places = await manager.query<{ position: number }[]>(
        'select position from folder where id = any($1) order by position, id for update',
        [wanted],
      )
      let last = -1
      for (const [i, id] of wanted.entries()) {
        last = Math.max(last + 1, places[i]!.position)
        await manager.query('update folder set position = $2 where id = $1', [id, last])
      }
    })
    return this.list(viewer, { away: false })
  }

  /**
   * Makes the ready folders a class does not have yet, and the first strands when the school has
   * none.
   */
  async makeReadySet(viewer: SignedIn, classId: string): Promise<Folder[]> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.query('select 1 from class where id = $1 for update', [classId])
      if ((await manager.count(StrandRow)) === 0) await this.#insertStrands(manager, viewer)
      const strands = new Map((await manager.find(StrandRow)).map(({ name, id }) => [name, id]))
      const there = await manager.query<{ name: string }[]>(
        'select f.name from folder f join folder_class h on h.folder_id = f.id where h.class_id = $1 and f.put_away_at is null',
        [classId],
      )
      for (const { strand, ...look } of READY_FOLDERS.filter(
        ({ name }) => !there.some((folder) => folder.name === name),
      ))
        await this.#insert(
          manager,
          viewer,
          {
            id: newId(),
            ...look,
            strandId: strands.get(strand) ?? null,
            wholeSchool: false,
            parentsSee: true,
            pupilsFile: true,
          },
          [classId],
        )
    })
    return this.list(viewer, { away: false })
  }

  async #insertStrands(manager: EntityManager, viewer: SignedIn): Promise<void> {
    await manager.insert(
      StrandRow,
      FIRST_STRANDS.map((name, position) => ({
        id: newId(),
        schoolId: viewer.schoolId,
        name,
        position,
      })),
    )
  }

  /** A pupil's idea for a folder of their own; it can be used once a teacher agreed. */
  async propose(viewer: SignedIn, folderId: string, look: ProposeFolder): Promise<Folder> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, FolderRow, folderId, {
        found: ({ ownerId }) => {
          if (ownerId !== viewer.personId) throw new DomainError('folder/not-found')
        },
        make: () => this.#insertProposal(manager, viewer, folderId, look),
      })
    })
    return this.#find(viewer, folderId)
  }

  async #insertProposal(
    manager: EntityManager,
    viewer: SignedIn,
    folderId: string,
    look: ProposeFolder,
  ): Promise<void> {
    const [home] = await ask<{ id: string }>(
      manager,
      sql`select c.id ${classOfPerson(viewer.personId, this.#platform.clock.now())}`,
    )
    if (!home) throw new DomainError('request/not-found')
    await this.#insert(
      manager,
      viewer,
      {
        id: folderId,
        ...look,
        strandId: null,
        wholeSchool: false,
        parentsSee: true,
        pupilsFile: true,
        ownerId: viewer.personId,
      },
      [home.id],
    )
  }

  /** The class a pupil would propose a folder in, null for none. */
  async classOf(pupilId: string): Promise<string | null> {
    const [home] = await ask<{ id: string }>(
      this.#platform.db.manager,
      sql`select c.id ${classOfPerson(pupilId, this.#platform.clock.now())}`,
    )
    return home?.id ?? null
  }

  /** Agrees to a pupil's folder, or says no: a folder that was never agreed to goes. */
  async answerProposal(viewer: SignedIn, folderId: string, agreed: boolean): Promise<Folder[]> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const folder = await manager.findOne(FolderRow, {
        where: { id: folderId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!folder?.ownerId || folder.agreedAt) throw new DomainError('folder/not-found')
      await this.#tellClasses(manager, folderId)
      if (agreed)
        await manager.update(FolderRow, folderId, { agreedAt: now, version: folder.version + 1 })
      else await manager.delete(FolderRow, folderId)
      await note(
        manager,
        now,
        viewer.personId,
        agreed ? 'folder.agree' : 'folder.decline',
        folderId,
      )
    })
    return this.list(viewer, { away: false })
  }

  async listStrands(): Promise<Strand[]> {
    return this.#platform.db.manager.query('select id, name from strand order by position, name')
  }

  /** Replaces the list; folders and tasks of a strand that goes stand without one. */
  async putStrands(viewer: SignedIn, strands: readonly Strand[]): Promise<Strand[]> {
    await this.#platform.db.transaction(async (manager) => {
      const ids = strands.map(({ id }) => id)
      for (const table of ['folder', 'task'])
        await manager.query(
          `update ${table} set strand_id = null where strand_id is not null and strand_id <> all($1)`,
          [ids],
        )
      await manager.query('delete from strand where school_id = $1 and id <> all($2)', [
        viewer.schoolId,
        ids,
      ])
      for (const [position, strand] of strands.entries())
        await manager.save(StrandRow, { ...strand, schoolId: viewer.schoolId, position })
      await note(manager, this.#platform.clock.now(), viewer.personId, 'strands', null)
    })
    return this.listStrands()
  }

  async #tellClasses(manager: EntityManager, folderId: string): Promise<void> {
    const people = await manager.query<{ id: string }[]>(
      'select distinct e.person_id as id from folder_class h join enrolment e on e.class_id = h.class_id where h.folder_id = $1',
      [folderId],
    )
    await tell(
      manager,
      people.map(({ id }) => id),
      { topic: 'folders' },
    )
  }

  async #page(pieces: FolderDetail['pieces']): Promise<Pick<FolderDetail, 'pieces' | 'next'>> {
    const last = pieces.length > PAGE ? pieces[PAGE - 1] : undefined
    if (!last) return { pieces, next: null }
    const [row] = await this.#platform.db.manager.query<{ at: Date }[]>(
      'select approved_at as at from piece where id = $1',
      [last.id],
    )
    return {
      pieces: pieces.slice(0, PAGE),
      next: row ? writeCursor({ at: row.at.toISOString(), id: last.id }) : null,
    }
  }
}

/**
 * SQL: the pieces a viewer has in a folder: their own, or those of classes they teach; in one
 * of the whole school also what their pupils made in earlier years.
 */
const mine = (viewer: SignedIn, folder: string, now: Date): Sql =>
  viewer.role === 'pupil'
    ? sql`p.approved_at <= ${now} and ${madeApproved('p', viewer.personId)}`
    : sql`(exists (select 1 from enrolment e where e.class_id = p.class_id and e.person_id = ${viewer.personId})
        or ${raw(folder)}.whole_school and exists (${approvedMakers('p')} and ${taughtNow('m.person_id', viewer.personId, sql`${now}::timestamptz`)}))`

/** SQL: the month of the school's clock in which a piece `p` was approved. */
const MONTH = sql`to_char(p.approved_at at time zone (select time_zone from school limit 1), 'YYYY-MM')`

/**
 * SQL: that all words stand somewhere in what was approved of a piece `p`: its title and thoughts, what is
 * written or said in it, and the names of who made it; capitals or not.
 */
const holdsWords = (words: string): Sql => {
  const patterns = words
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '')
    .map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`)
  return sql`and (select lower(concat_ws(' ', v.title, v.reflection,
      (select string_agg(concat_ws(' ', w.name, w.content ->> 'text'), ' ') from version_part w where w.version_id = v.id),
      (select string_agg(m.transcript, ' ') from version_file x join media m on m.id = x.media_id where x.version_id = v.id),
      (select string_agg(o.first_name || ' ' || o.last_name, ' ') from version_maker k join person o on o.id = k.person_id where k.version_id = v.id)))
    from piece_version v where v.id = p.approved_version_id) like all (${patterns}::text[])`
}

/** SQL: folders `f` as a viewer is told of them. */
const selectFor = (
  viewer: SignedIn,
  now: Date,
): Sql => sql`select f.id, f.name, f.symbol, f.colour, s.name as strand, f.strand_id as "strandId", f.parents_see as "parentsSee",
    f.pupils_file as "pupilsFile", f.whole_school as "wholeSchool", f.put_away_at is not null as "putAway", f.version, f.whole_school or ${inClass(viewer)} as member,
    ${viewer.role === 'pupil' ? sql`false` : sql`(${viewer.leads} or (not f.whole_school and ${inClass(viewer)}))`} as "mayChange",
    coalesce((select json_agg(h.class_id) from folder_class h where h.folder_id = f.id), '[]') as "classIds",
    (select string_agg(c.name, ', ' order by c.name) from folder_class h join class c on c.id = h.class_id where h.folder_id = f.id) as "className",
    case when f.owner_id is not null then json_build_object('id', f.owner_id, 'agreed', f.agreed_at is not null,
      'name', (select trim(o.first_name || ' ' || o.last_name) from person o where o.id = f.owner_id)) end as owner,
    (select count(*)::int from piece p where ${liesIn(viewer, sql`f.id`)} and p.binned_at is null and ${mine(viewer, 'f', now)}) as "pieceCount"
  from folder f left join strand s on s.id = f.strand_id`
