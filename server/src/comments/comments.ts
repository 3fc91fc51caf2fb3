import type {
  Comment,
  DecideComment,
  HeldWords,
  PupilName,
  SayComment,
  WaitingComment,
} from '@nibquill/contract'
import {
  DomainError,
  findHeldWords,
  firstState,
  MAX_COMMENTS,
  MAX_WAITING_COMMENTS,
  moveComment,
  type CommentMove,
} from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { madeTogether, teachesPiece } from '../access/facts.ts'
import type { Guard } from '../access/guard.ts'
import { listSeenComments } from '../access/seenComments.ts'
import { refuseForeignVoice, spokenIn } from '../media/spokenIn.ts'
import { NewsRow } from '../notices/rows.ts'
import { everyoneOf } from '../pieces/pieceChanges.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, raw, sql } from '../platform/sql.ts'
import { SchoolRow } from '../school/rows.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'
import { CommentRow } from './rows.ts'
import { PUPIL, SAID_BY, saidBy, type FlatSaidBy } from './saidBy.ts'

const SHOWN_AT_ONCE = 200

type Flat = FlatSaidBy & Omit<Comment, 'by' | 'saidAt'> & { saidAt: Date }
const COMMENT = `c.id, ${SAID_BY}, c.words, ${spokenIn('c')} as voice, c.said_at as "saidAt", c.state, c.thoughts, c.hidden_why as "hiddenWhy", c.answers_id as "answersId"`
const commentOf = (row: Flat, readerId: string): Comment => {
  const { id, words, voice, state, thoughts, hiddenWhy, answersId } = row
  return {
    ...{ id, words, voice, state, thoughts, hiddenWhy, answersId },
    saidAt: row.saidAt.toISOString(),
    by: saidBy(row, readerId),
  }
}

/** What is said under pieces, and who sees it when. */
export class Comments {
  readonly #platform: Platform
  readonly #guard: Guard
  constructor(platform: Platform, guard: Guard) {
    this.#platform = platform
    this.#guard = guard
  }

  /** What somebody who may see a piece sees under it, first said first. */
  async list(viewer: SignedIn, pieceId: string): Promise<Comment[]> {
    const { manager } = this.#platform.db
    const seen = await listSeenComments(manager, viewer, sql`c.piece_id = ${pieceId}`)
    const rows = await manager.query<Flat[]>(
      `select ${COMMENT} from comment c join person u on u.id = c.by_id where c.id = any($1::uuid[]) order by c.said_at, c.id`,
      [seen.map(({ id }) => id)],
    )
    return rows.map((row) => commentOf(row, viewer.personId))
  }

  /**
   * Says something under a piece: a teacher's words are seen at once, everybody else's wait.
   * @throws DomainError `comment/not-found` where it answers nothing of that piece, or the id is
   *   another's; `comment/too-many`, `comment/too-many-waiting`; `media/not-found`;
   *   `piece/not-together` for thoughts
   */
  async say(viewer: SignedIn, commentId: string, said: SayComment): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, CommentRow, commentId, {
        found: ({ byId, pieceId }) => {
          if (byId !== viewer.personId || pieceId !== said.pieceId)
            throw new DomainError('comment/not-found')
        },
        make: () => this.#insert(manager, viewer, commentId, said),
      })
    })
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    commentId: string,
    { pieceId, words, voiceId, answersId, thoughts = false }: SayComment,
  ): Promise<void> {
    if (viewer.role === 'office') throw new DomainError('comment/not-found')
    await this.#refuseTooMany(manager, viewer, pieceId)
    if (voiceId) await refuseForeignVoice(manager, viewer, voiceId)
    if (answersId) await refuseToAnswer(manager, viewer, pieceId, answersId)
    if (thoughts) await refuseAlone(manager, viewer, pieceId)
    const now = this.#platform.clock.now()
    const state = firstState(viewer.role)
    await manager.insert(CommentRow, {
      ...{ id: commentId, pieceId, byId: viewer.personId, words, state, thoughts },
      ...{
        voiceMediaId: voiceId ?? null,
        answersId: answersId ?? null,
        saidAt: now,
        hiddenWhy: '',
      },
    })
    await note(manager, now, viewer.personId, 'comment.say', pieceId, { commentId })
    if (state === 'shown') await this.#newsOf(manager, commentId)
    await this.#tellOf(manager, commentId)
  }

  async #refuseTooMany(manager: EntityManager, viewer: SignedIn, pieceId: string): Promise<void> {
    await holdName(manager, `comments:${viewer.personId}`)
    const [count] = await manager.query<{ under: number; waiting: number }[]>(
      `select (select count(*)::int from comment where piece_id = $1) as under,
         (select count(*)::int from comment where by_id = $2 and state = 'waiting') as waiting`,
      [pieceId, viewer.personId],
    )
    if (count!.under >= MAX_COMMENTS) throw new DomainError('comment/too-many')
    if (count!.waiting >= MAX_WAITING_COMMENTS) throw new DomainError('comment/too-many-waiting')
  }

  /**
   * A teacher shows a comment, or hides it and may say why. Both can be turned round later.
   * @throws DomainError `comment/not-found`; `comment/decided-already` with `state`
   */
  async decide(
    viewer: SignedIn,
    commentId: string,
    move: CommentMove,
    { seenState, why = '' }: DecideComment,
  ): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      const comment = await manager.findOne(CommentRow, {
        where: { id: commentId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!comment) throw new DomainError('comment/not-found')
      const state = moveComment(comment.state, move, seenState)
      const now = this.#platform.clock.now()
      const hiddenWhy = move === 'hide' ? why : ''
      await manager.update(CommentRow, commentId, {
        ...{ state, hiddenWhy, decidedBy: viewer.personId, decidedAt: now },
      })
      await note(manager, now, viewer.personId, `comment.${move}`, comment.pieceId, { commentId })
      if (state === 'shown') await this.#newsOf(manager, commentId)
      await this.#tellOf(manager, commentId)
    })
  }

  /**
   * Demands the right over the piece a comment stands under.
   * @throws DomainError `comment/not-found`, `accounts/signed-out`
   */
  async demandDecide(viewer: SignedIn | null, commentId: string): Promise<void> {
    const found = viewer
      ? await this.#platform.db.manager.findOneBy(CommentRow, { id: commentId })
      : null
    if (
      viewer &&
      (!found || !(await this.#guard.allowsPiece(viewer, 'comment.decide', found.pieceId)))
    )
      throw new DomainError('comment/not-found')
    if (!viewer) throw new DomainError('accounts/signed-out')
  }

  /** What waits for a teacher, first said first, with what of the school's list stands in it. */
  async listWaiting(viewer: SignedIn): Promise<WaitingComment[]> {
    type FlatWaiting = Flat & {
      pieceId: string
      title: string
      className: string
      pupil: PupilName
    }
    const { manager } = this.#platform.db
    const rows = await ask<FlatWaiting>(
      manager,
      sql`select ${raw(COMMENT)}, p.id as "pieceId", p.title, k.name as "className",
         ${raw(PUPIL)}
       from comment c join person u on u.id = c.by_id join piece p on p.id = c.piece_id join class k on k.id = p.class_id join person o on o.id = p.pupil_id
       where c.state = 'waiting' and p.binned_at is null and ${teachesPiece('p', viewer.personId, schoolDayOf(this.#platform.clock.now()))}
       order by c.said_at, c.id limit ${SHOWN_AT_ONCE}`,
    )
    const { words: list } = await this.listHeldWords()
    return rows.map((row) => {
      const { pieceId, title, className, pupil } = row
      return {
        ...commentOf(row, viewer.personId),
        ...{ pieceId, title, className, pupil, held: findHeldWords(row.words, list) },
      }
    })
  }

  async listHeldWords(): Promise<HeldWords> {
    const school = await this.#platform.db.manager.findOneOrFail(SchoolRow, { where: {} })
    return { words: [...school.heldWords] }
  }

  async putHeldWords(viewer: SignedIn, { words }: HeldWords): Promise<HeldWords> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(SchoolRow, viewer.schoolId, { heldWords: [...new Set(words)] })
      await note(
        manager,
        this.#platform.clock.now(),
        viewer.personId,
        'held-words.change',
        viewer.schoolId,
      )
    })
    return this.listHeldWords()
  }

  /** Makers who see it are told, once, however often it is hidden and shown again. */
  async #newsOf(manager: EntityManager, commentId: string): Promise<void> {
    const makers = await manager.query<{ id: string }[]>(
      `select m.person_id as id from comment c join piece_maker m on m.piece_id = c.piece_id where c.id = $1 and m.person_id <> c.by_id`,
      [commentId],
    )
    for (const { id: personId } of makers) {
      const reader = { personId, role: 'pupil' as const }
      const [seen] = await listSeenComments(manager, reader, sql`c.id = ${commentId}`)
      if (!seen) continue
      await manager
        .createQueryBuilder()
        .insert()
        .into(NewsRow)
        .values({
          ...{ id: newId(), personId, kind: 'commented', commentId },
          happenedAt: this.#platform.clock.now(),
        })
        .orIgnore()
        .execute()
    }
  }

  async #tellOf(manager: EntityManager, commentId: string): Promise<void> {
    const [found] = await manager.query<{ pieceId: string; adults: string[] }[]>(
      `select c.piece_id as "pieceId", array_remove(array[c.by_id, a.by_id], null) as adults
       from comment c left join comment a on a.id = c.answers_id where c.id = $1`,
      [commentId],
    )
    await tell(manager, [...(await everyoneOf(manager, found!.pieceId)), ...found!.adults], {
      topic: 'comments',
      id: found!.pieceId,
    })
  }
}

/** Whoever made something alone thought of it before it was handed in. */
async function refuseAlone(
  manager: EntityManager,
  { personId }: SignedIn,
  pieceId: string,
): Promise<void> {
  const [found] = await ask(
    manager,
    sql`select 1 from piece p where p.id = ${pieceId} and ${madeTogether('p', personId)}`,
  )
  if (!found) throw new DomainError('piece/not-together')
}

/** Teachers answer what pupils and parents said under the same piece. */
async function refuseToAnswer(
  manager: EntityManager,
  viewer: SignedIn,
  pieceId: string,
  answersId: string,
): Promise<void> {
  const [found] = await manager.query<unknown[]>(
    `select 1 from comment c join person u on u.id = c.by_id where c.id = $1 and c.piece_id = $2 and u.role <> 'teacher'`,
    [answersId, pieceId],
  )
  if (viewer.role !== 'teacher' || !found) throw new DomainError('comment/not-found')
}
