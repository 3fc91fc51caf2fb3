import type { MakeNotice, NewsItem, Notice, Readers } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { ATTACHMENT_JSON, refuseForeign } from '../media/attachments.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listNews } from './news.ts'
import { NoticeMediaRow, NoticeRow } from './rows.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

const SHOWN = 100

/** What people are told: about their work, and by their teacher. */
export class Notices {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  listNews(viewer: SignedIn): Promise<NewsItem[]> {
    return listNews(this.#platform.db.manager, viewer.personId)
  }

  /** @param newsIds - What was on screen; of others' news nothing happens. */
  async markSeen(viewer: SignedIn, newsIds: readonly string[]): Promise<void> {
    await this.#platform.db.manager.query(
      'update news set seen_at = $2 where person_id = $1 and seen_at is null and id = any($3)',
      [viewer.personId, this.#platform.clock.now(), newsIds],
    )
  }

  /**
   * Newest first: those of a teacher's classes with how many have seen them; a pupil's or parent's
   * with whether they have.
   */
  async list(viewer: SignedIn): Promise<Notice[]> {
    const teaches = viewer.role === 'teacher'
    const rows = await ask<Omit<Notice, 'createdAt'> & { createdAt: Date }>(
      this.#platform.db.manager,
      sql`select n.id, n.class_id as "classId", c.name as "className", n.audience, n.words, trim(u.first_name || ' ' || u.last_name) as "from",
         n.created_at as "createdAt", exists (select 1 from notice_seen s where s.notice_id = n.id and s.person_id = ${viewer.personId}) as seen,
         coalesce((select json_agg(json_build_object(${raw(ATTACHMENT_JSON)}) order by k.position) from notice_media k join media m on m.id = k.media_id
           where k.notice_id = n.id), '[]') as media,
         ${teaches ? sql`(select json_build_object('of', count(*), 'seen', count(s.person_id)) from (${AUDIENCE}) a left join notice_seen s on s.notice_id = n.id and s.person_id = a.id)` : sql`null`} as "seenBy"
       from notice n join class c on c.id = n.class_id join school_year y on y.id = c.school_year_id join person u on u.id = n.created_by
       where n.withdrawn_at is null and y.ends_on >= ${schoolDayOf(this.#platform.clock.now())} and ${shownTo(viewer)}
       order by n.created_at desc, n.id desc limit ${SHOWN}`,
    )
    return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }))
  }

  /** Again with the same id it changes nothing. */
  async make(
    viewer: SignedIn,
    noticeId: string,
    { classId, audience, words, mediaIds }: MakeNotice,
  ): Promise<Notice[]> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, NoticeRow, noticeId, {
        found: (there) => {
          if (there.classId !== classId) throw new DomainError('request/not-found')
        },
        make: () => this.#insert(manager, viewer, noticeId, { classId, audience, words, mediaIds }),
      })
    })
    return this.list(viewer)
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    noticeId: string,
    { classId, audience, words, mediaIds }: MakeNotice,
  ): Promise<void> {
    const now = this.#platform.clock.now()
    await refuseForeign(manager, viewer.personId, mediaIds)
    await manager.insert(NoticeRow, {
      id: noticeId,
      classId,
      audience,
      words,
      createdBy: viewer.personId,
      createdAt: now,
      withdrawnAt: null,
    })
    if (mediaIds.length > 0)
      await manager.insert(
        NoticeMediaRow,
        mediaIds.map((mediaId, position) => ({ noticeId, mediaId, position })),
      )
    await note(manager, now, viewer.personId, 'notice.make', noticeId)
    await this.#tellAudience(manager, noticeId)
  }

  async withdraw(
    viewer: SignedIn,
    noticeId: string,
    options: { back: boolean },
  ): Promise<Notice[]> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(NoticeRow, noticeId, { withdrawnAt: options.back ? null : now })
      await note(
        manager,
        now,
        viewer.personId,
        options.back ? 'notice.restore' : 'notice.withdraw',
        noticeId,
      )
      await this.#tellAudience(manager, noticeId)
    })
    return this.list(viewer)
  }

  async read(viewer: SignedIn, noticeId: string): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      const fresh = await manager.query<unknown[]>(
        'insert into notice_seen (notice_id, person_id, seen_at) values ($1, $2, $3) on conflict (notice_id, person_id) do nothing returning 1',
        [noticeId, viewer.personId, this.#platform.clock.now()],
      )
      if (fresh.length > 0) await this.#tellTeachers(manager, noticeId)
    })
  }

  /** Who has seen it, and who has not yet: those first. */
  async listReaders(noticeId: string): Promise<Readers> {
    const rows = await ask<{ id: string; name: string; seenAt: Date | null }>(
      this.#platform.db.manager,
      sql`select a.id, a.name, s.seen_at as "seenAt" from notice n join lateral (${AUDIENCE}) a on true
         left join notice_seen s on s.notice_id = n.id and s.person_id = a.id
       where n.id = ${noticeId} order by s.seen_at is not null, a.name, a.id`,
    )
    return rows.map((row) => ({ ...row, seenAt: row.seenAt?.toISOString() ?? null }))
  }

  /** What hangs a file tells everyone that more can be shown of it. */
  async tellPrepared(manager: EntityManager, mediaId: string): Promise<void> {
    for (const { noticeId } of await manager.findBy(NoticeMediaRow, { mediaId })) {
      await this.#tellAudience(manager, noticeId)
      await this.#tellTeachers(manager, noticeId)
    }
  }

  async #tellTeachers(manager: EntityManager, noticeId: string): Promise<void> {
    const teachers = await manager.query<{ id: string }[]>(
      `select p.id from notice n join enrolment e on e.class_id = n.class_id join person p on p.id = e.person_id
       where n.id = $1 and p.role = 'teacher'`,
      [noticeId],
    )
    await tell(
      manager,
      teachers.map(({ id }) => id),
      { topic: 'notices' },
    )
  }

  async #tellAudience(manager: EntityManager, noticeId: string): Promise<void> {
    const people = await ask<{ id: string }>(
      manager,
      sql`select a.id from notice n join lateral (${AUDIENCE}) a on true where n.id = ${noticeId}`,
    )
    await tell(
      manager,
      people.map(({ id }) => id),
      { topic: 'notices' },
    )
  }
}

/** SQL: the people a notice `n` is for. */
const AUDIENCE = sql`select p.id, trim(p.first_name || ' ' || p.last_name) as name from enrolment e join person p on p.id = e.person_id
    where n.audience = 'class' and e.class_id = n.class_id and p.role = 'pupil' and p.left_at is null
  union select p.id, trim(p.first_name || ' ' || p.last_name) from enrolment e join person u on u.id = e.person_id and u.left_at is null
    join guardian g on g.pupil_id = e.person_id join person p on p.id = g.parent_id where n.audience = 'parents' and e.class_id = n.class_id`

/** SQL: the notices `n` somebody is shown. */
function shownTo({ role, personId }: SignedIn): Sql {
  if (role === 'parent')
    return sql`n.audience = 'parents' and exists (select 1 from enrolment e join guardian g on g.pupil_id = e.person_id
      where e.class_id = n.class_id and g.parent_id = ${personId})`
  const inClass = sql`exists (select 1 from enrolment e where e.class_id = n.class_id and e.person_id = ${personId})`
  return role === 'teacher' ? inClass : sql`n.audience = 'class' and ${inClass}`
}
