import type {
  Chapter,
  Pick as Picked,
  Portfolio as PortfolioAnswer,
  PutPick,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { placePick } from '@nibquill/core/portfolio/placePick'
import { v7 as newId } from 'uuid'
import { classOfPerson } from '../school/classOfPerson.ts'
import { PersonRow } from '../school/rows.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { refuseForeignVoice, spokenIn } from '../media/spokenIn.ts'
import { listPieceLines } from '../pieces/pieceLines.ts'
import { everyoneOf } from '../pieces/pieceChanges.ts'
import { PieceRow, VersionMakerRow } from '../pieces/rows.ts'
import { listTerms, type School } from '../school/school.ts'
import { ChapterRow, PickRow } from './rows.ts'

/** One portfolio per pupil: a chapter a term, running on from year to year. */
export class Portfolio {
  readonly #platform: Platform
  readonly #school: School
  constructor(platform: Platform, school: School) {
    this.#platform = platform
    this.#school = school
  }

  async describe(pupilId: string): Promise<PortfolioAnswer> {
    const manager = this.#platform.db.manager
    const pupil = await manager.findOneByOrFail(PersonRow, { id: pupilId })
    const [home] = await ask<{ name: string }>(
      manager,
      sql`select c.name ${classOfPerson(pupilId, this.#platform.clock.now())}`,
    )
    const pieces = await listPieceLines(
      manager,
      'approved',
      sql`join version_maker own on own.version_id = p.approved_version_id and own.person_id = ${pupilId} where p.binned_at is null order by p.approved_at desc, p.id`,
    )
    const places = await manager.query<{ id: string; termId: string }[]>(
      `select p.id, p.term_id as "termId" from piece p join version_maker m on m.version_id = p.approved_version_id where m.person_id = $1`,
      [pupilId],
    )
    const termOfPiece = new Map(places.map(({ id, termId }) => [id, termId]))
    const picks = await manager.query<
      (Pick<Picked, 'pieceId' | 'reason' | 'voice'> & { termId: string })[]
    >(
      `select c.term_id as "termId", k.piece_id as "pieceId", k.reason, ${spokenIn('k')} as voice from chapter c join pick k on k.chapter_id = c.id
       where c.pupil_id = $1 order by k.position`,
      [pupilId],
    )
    const running = await this.#school.runningTerm(manager)
    const chapters = (await listTerms(manager)).reverse().map((term): Chapter => {
      const own = pieces.filter((piece) => termOfPiece.get(piece.id) === term.id)
      const picked = picks.filter(({ termId }) => termId === term.id)
      return {
        term: { id: term.id, name: term.name, startsOn: term.startsOn, endsOn: term.endsOn },
        running: term.id === running?.term.id,
        picks: picked.flatMap(({ pieceId, reason, voice }) => {
          const piece = pieces.find(({ id }) => id === pieceId)
          return piece ? [{ pieceId, reason, voice, piece }] : []
        }),
        others: own.filter((piece) => !picked.some(({ pieceId }) => pieceId === piece.id)),
      }
    })
    return {
      pupil: {
        id: pupil.id,
        firstName: pupil.firstName,
        lastName: pupil.lastName,
        peg: { symbol: pupil.pegSymbol!, colour: pupil.pegColour! },
      },
      className: home?.name ?? null,
      chapters: chapters.filter(
        ({ running: now, picks: chosen, others }) => now || chosen.length > 0 || others.length > 0,
      ),
    }
  }

  /**
   * Picks an approved piece into the chapter of its term, or changes its reason or place.
   * @throws DomainError `portfolio/not-approved`, `portfolio/no-term`, `media/not-found`
   */
  async putPick(
    viewer: SignedIn,
    pupilId: string,
    pieceId: string,
    { reason, voiceId, place }: PutPick,
  ): Promise<PortfolioAnswer> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const piece = await manager.findOneByOrFail(PieceRow, { id: pieceId })
      if (!piece.approvedVersionId) throw new DomainError('portfolio/not-approved')
      if (
        !(await manager.existsBy(VersionMakerRow, {
          versionId: piece.approvedVersionId,
          personId: pupilId,
        }))
      )
        throw new DomainError('piece/not-found')
      if (!piece.termId) throw new DomainError('portfolio/no-term')
      if (voiceId) await refuseForeignVoice(manager, viewer, voiceId)
      await manager.query(
        'insert into chapter (id, pupil_id, term_id) values ($1, $2, $3) on conflict (pupil_id, term_id) do nothing',
        [newId(), pupilId, piece.termId],
      )
      const chapter = await manager.findOneOrFail(ChapterRow, {
        where: { pupilId, termId: piece.termId },
        lock: { mode: 'pessimistic_write' },
      })
      const picks = await manager.find(PickRow, {
        where: { chapterId: chapter.id },
        order: { position: 'ASC' },
      })
      const order = placePick(
        picks.map((pick) => pick.pieceId),
        pieceId,
        place,
      )
      await manager.query(
        `insert into pick (chapter_id, piece_id, position, reason, voice_media_id, picked_by, picked_at) values ($1, $2, 0, $3, $6, $4, $5)
         on conflict (chapter_id, piece_id) do update set reason = excluded.reason,
           voice_media_id = case when $7 then pick.voice_media_id else excluded.voice_media_id end`,
        [chapter.id, pieceId, reason, viewer.personId, now, voiceId ?? null, voiceId === undefined],
      )
      await this.#saveOrder(manager, chapter.id, order)
      await note(manager, now, viewer.personId, 'portfolio.pick', pieceId)
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'portfolio', id: pupilId })
    })
    return this.describe(pupilId)
  }

  async removePick(viewer: SignedIn, pupilId: string, pieceId: string): Promise<PortfolioAnswer> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.query(
        'delete from pick k using chapter c where c.id = k.chapter_id and c.pupil_id = $1 and k.piece_id = $2',
        [pupilId, pieceId],
      )
      await note(manager, this.#platform.clock.now(), viewer.personId, 'portfolio.unpick', pieceId)
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'portfolio', id: pupilId })
    })
    return this.describe(pupilId)
  }

  async #saveOrder(
    manager: Parameters<typeof tell>[0],
    chapterId: string,
    order: readonly string[],
  ): Promise<void> {
    await manager.query(
      `update pick set position = o.position - 1 from unnest($2::uuid[]) with ordinality as o (piece_id, position)
       where pick.chapter_id = $1 and pick.piece_id = o.piece_id`,
      [chapterId, order],
    )
  }
}
