import type {
  Comments,
  OpenedPrivateWords,
  OpenPrivateWords,
  PrivateWord,
  SayPrivately,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { taughtNow } from '../access/facts.ts'
import { refuseForeignVoice, spokenIn } from '../media/spokenIn.ts'
import { NewsRow } from '../notices/rows.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'
import { PrivateWordRow } from './rows.ts'
import { PUPIL, SAID_BY, saidBy, type FlatSaidBy } from './saidBy.ts'

/** Between two people on one piece. */
const MOST_WORDS = 300

type Flat = FlatSaidBy &
  Omit<PrivateWord, 'by' | 'saidAt'> & { saidAt: Date; pieceId: string; title: string }

/**
 * What a pupil and one teacher say to each other on a piece. Nobody else reads it, but whoever leads
 * the school where a pupil's safety asks for it, and that is noted.
 */
export class PrivateWords {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** What somebody is one of the two of, on a piece they may talk on. */
  async list(viewer: SignedIn, pieceId: string): Promise<PrivateWord[]> {
    const words = await this.#words(
      viewer,
      sql`w.piece_id = ${pieceId} and ${viewer.personId}::uuid in (w.pupil_id, w.teacher_id)`,
    )
    return words.map(({ pieceId: _piece, title: _title, ...word }) => word)
  }

  async #words(viewer: SignedIn, where: Sql): Promise<OpenedPrivateWords> {
    const rows = await ask<Flat>(
      this.#platform.db.manager,
      sql`select w.id, ${raw(SAID_BY)}, w.words, ${raw(spokenIn('w'))} as voice, w.said_at as "saidAt", w.piece_id as "pieceId", p.title,
         trim(t.first_name || ' ' || t.last_name) as "teacherName",
         ${raw(PUPIL)}
       from private_word w join piece p on p.id = w.piece_id join person u on u.id = w.by_id join person t on t.id = w.teacher_id join person o on o.id = w.pupil_id
       where ${where} order by w.said_at, w.id`,
    )
    return rows.map((row) => {
      const { id, words, voice, pupil, teacherName, pieceId, title } = row
      return {
        ...{ id, words, voice, pupil, teacherName, pieceId, title },
        saidAt: row.saidAt.toISOString(),
        by: saidBy(row, viewer.personId),
      }
    })
  }

  /** Whom somebody can talk to on a piece: its makers, or those who teach its class or its makers. */
  async listWith(
    viewer: SignedIn,
    pieceId: string,
    manager = this.#platform.db.manager,
  ): Promise<Comments['with']> {
    const today = schoolDayOf(this.#platform.clock.now())
    return viewer.role === 'pupil'
      ? ask(
          manager,
          sql`select u.id, trim(u.first_name || ' ' || u.last_name) as name from piece p, person u where p.id = ${pieceId} and u.role = 'teacher' and u.left_at is null
             and (exists (select 1 from enrolment e where e.class_id = p.class_id and e.person_id = u.id) or ${taughtNow('p.pupil_id', raw('u.id'), today)})
           order by u.last_name, u.id`,
        )
      : ask(
          manager,
          sql`select u.id, u.first_name as name from piece_maker m join person u on u.id = m.person_id where m.piece_id = ${pieceId} order by u.first_name, u.id`,
        )
  }

  /**
   * @throws DomainError `comment/not-for-you` to somebody who does not teach it, or does not make it;
   *   `comment/not-found` where the id is another's; `comment/too-many`, `media/not-found`
   */
  async say(viewer: SignedIn, wordId: string, said: SayPrivately): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, PrivateWordRow, wordId, {
        found: ({ byId, pieceId }) => {
          if (byId !== viewer.personId || pieceId !== said.pieceId)
            throw new DomainError('comment/not-found')
        },
        make: () => this.#insert(manager, viewer, wordId, said),
      })
    })
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    wordId: string,
    { pieceId, withId, words, voiceId }: SayPrivately,
  ): Promise<void> {
    const people = await this.listWith(viewer, pieceId, manager)
    if (!people.some(({ id }) => id === withId)) throw new DomainError('comment/not-for-you')
    if (voiceId) await refuseForeignVoice(manager, viewer, voiceId)
    const [pupilId, teacherId] =
      viewer.role === 'pupil' ? [viewer.personId, withId] : [withId, viewer.personId]
    const between = { pieceId, pupilId, teacherId }
    await holdName(manager, `private:${pieceId}:${pupilId}:${teacherId}`)
    if ((await manager.countBy(PrivateWordRow, between)) >= MOST_WORDS)
      throw new DomainError('comment/too-many')
    const now = this.#platform.clock.now()
    await manager.insert(PrivateWordRow, {
      ...{ id: wordId, ...between, byId: viewer.personId, words },
      ...{ voiceMediaId: voiceId ?? null, saidAt: now },
    })
    await manager.insert(NewsRow, {
      ...{ id: newId(), personId: withId, kind: 'private-word', privateWordId: wordId },
      happenedAt: now,
    })
    await note(manager, now, viewer.personId, 'private-word.say', pieceId, { wordId })
    await tell(manager, [viewer.personId, withId], { topic: 'comments', id: pieceId })
  }

  /** Everything a pupil said in private, and was told. The look is noted before anything is shown. */
  async open(viewer: SignedIn, { pupilId, reason }: OpenPrivateWords): Promise<OpenedPrivateWords> {
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      viewer.personId,
      'private-words.open',
      pupilId,
      { reason },
    )
    return this.#words(viewer, sql`w.pupil_id = ${pupilId}`)
  }
}
