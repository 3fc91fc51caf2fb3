import type { Book as BookAnswer, BookForecast, MakeBook, TakeHome } from '@nibquill/contract'
import { DomainError, planBook, type BookFor } from '@nibquill/core'
import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { In, type EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { madeApproved, SHOWN_AT_HOME } from '../access/facts.ts'
import { PersonRow } from '../school/rows.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import { addJob } from '../platform/queue.ts'
import type { SignedIn } from '../platform/routes.ts'
import { MarkUpRow } from '../review/rows.ts'
import { listSharedPieces, type SharedPieceRow } from '../portfolio/sharedPieces.ts'
import { SchoolRow, TermRow } from '../school/rows.ts'
import type { Sharing } from '../sharing/sharing.ts'
import { bookKey } from './bookKey.ts'
import { drawBook } from './drawBook.ts'
import { dayOf, type BookPage } from './frame.ts'
import { printParts } from './printedParts.ts'
import { countPages } from './printing.ts'
import { BookRow, type BookContent } from './rows.ts'
import { strings } from './strings.ts'

/** Changes when pages are laid out anew, so that an old book is not taken for a new one. */
const LAYOUT = 1
/** A page link outlives the school year the book was printed in. */
const LINKS_LAST_MS = 400 * 24 * 3600 * 1000
const PROGRESS_EVERY_MS = 400

/**
 * SQL: what book `b` holds, each piece `p` in its folder `f`; `p` is null where another version has
 * been approved since.
 */
const CONTENT = `jsonb_to_recordset(b.content) as c("pieceId" uuid, "versionId" uuid)
  left join piece p on p.id = c."pieceId" and p.approved_version_id = c."versionId" left join folder f on f.id = p.approved_folder_id`

/** Whether a piece may stand in a book: for home, only what families see at this moment. */
const fitsIn = (madeFor: BookFor, { parentsSee, withoutConsent }: SharedPieceRow): boolean =>
  madeFor === 'school' || (parentsSee && withoutConsent.length === 0)

/** How many such books had their page codes ended: the next one is another, with codes that open. */
async function countEnded(
  manager: EntityManager,
  { pupilId, termId, madeFor }: Omit<MakeBook, 'marked'>,
) {
  const [row] = await ask<{ count: number }>(
    manager,
    sql`select count(*)::int as count from book b where b.pupil_id = ${pupilId} and b.term_id = ${termId} and b.made_for = ${madeFor}
      and exists (select 1 from page_link l where l.book_id = b.id and l.withdrawn_at is not null)`,
  )
  return row!.count
}

/** What teachers wrote on copies of what a book holds: another one makes another book. */
async function marksIn(manager: EntityManager, content: BookContent): Promise<string[]> {
  const marks = await manager.find(MarkUpRow, {
    where: { versionId: In(content.map(({ versionId }) => versionId)) },
    order: { inkMediaId: 'ASC' },
  })
  return marks.map(({ inkMediaId }) => inkMediaId)
}

/** Term books: asked for once, made by a job, downloaded by the teacher. */
export class Book {
  readonly #platform: Platform
  readonly #sharing: Sharing
  constructor(platform: Platform, sharing: Sharing) {
    this.#platform = platform
    this.#sharing = sharing
  }

  /**
   * The picks of a term in the pupil's order; where nothing was picked, all approved pieces, oldest
   * first.
   */
  async #choose(
    manager: EntityManager,
    pupilId: string,
    termId: string,
  ): Promise<SharedPieceRow[]> {
    const picked = await this.#picks(manager, pupilId, termId)
    return picked.length > 0 ? picked : this.#everything(manager, pupilId, termId)
  }

  #picks(manager: EntityManager, pupilId: string, termId: string): Promise<SharedPieceRow[]> {
    return listSharedPieces(
      manager,
      pupilId,
      sql`join pick chosen on chosen.piece_id = p.id join chapter part_of on part_of.id = chosen.chapter_id and part_of.pupil_id = ${pupilId}
       where part_of.term_id = ${termId} and p.binned_at is null and ${madeApproved('p', pupilId)} order by chosen.position`,
    )
  }

  #everything(manager: EntityManager, pupilId: string, termId: string): Promise<SharedPieceRow[]> {
    return listSharedPieces(
      manager,
      pupilId,
      sql`join version_maker own on own.version_id = p.approved_version_id and own.person_id = ${pupilId}
       where p.term_id = ${termId} and p.binned_at is null order by p.approved_at, p.id`,
    )
  }

  /** How long the book will be, and what it will not hold, before it is made. */
  async forecast({ pupilId, termId, madeFor }: Omit<MakeBook, 'marked'>): Promise<BookForecast> {
    const chosen = await this.#choose(this.#platform.db.manager, pupilId, termId)
    const pieces = chosen.filter((piece) => fitsIn(madeFor, piece))
    return {
      pieces: pieces.length,
      pages: pieces.length === 0 ? 0 : planBook(pieces.map(countPages)).totalPages,
      leftOut: chosen
        .filter((piece) => !fitsIn(madeFor, piece))
        .map(({ id, title, withoutConsent }) => ({
          pieceId: id,
          title,
          reason: withoutConsent.length > 0 ? ('consent' as const) : ('folder' as const),
          withoutConsent,
        })),
    }
  }

  /**
   * Asks for a book. When nothing has changed since, the one that is there (or being made) is the
   * answer.
   */
  ask(viewer: SignedIn, order: MakeBook): Promise<BookAnswer> {
    return this.#ask(viewer, order, (manager) => this.#choose(manager, order.pupilId, order.termId))
  }

  /** A family asks for everything their page shows of a term, picked or not. */
  takeHome(viewer: SignedIn, { pupilId, termId }: TakeHome): Promise<BookAnswer> {
    return this.#ask(viewer, { pupilId, termId, madeFor: 'home', marked: false }, (manager) =>
      this.#everything(manager, pupilId, termId),
    )
  }

  async #ask(
    viewer: SignedIn,
    order: MakeBook,
    choose: (manager: EntityManager) => Promise<SharedPieceRow[]>,
  ): Promise<BookAnswer> {
    const { pupilId, termId, madeFor, marked } = order
    const id = await this.#platform.db.transaction(async (manager) => {
      const pieces = (await choose(manager)).filter((piece) => fitsIn(madeFor, piece))
      if (pieces.length === 0) throw new DomainError('book/nothing-to-print')
      const content: BookContent = pieces.map((piece) => ({
        pieceId: piece.id,
        versionId: piece.versionId,
        reason: piece.reason ?? '',
      }))
      const ended = await countEnded(manager, order)
      const marks = marked ? await marksIn(manager, content) : []
      const { publicUrl } = this.#platform.config
      const fingerprint = createHash('sha256')
        .update(
          JSON.stringify([LAYOUT, madeFor, publicUrl, content, ended, ...(marked ? [marks] : [])]),
        )
        .digest('hex')
      const now = this.#platform.clock.now()
      const [[made], [there]] = [
        await manager.query<{ id: string }[]>(
          `insert into book (id, pupil_id, term_id, fingerprint, content, state, page_count, pages_done, requested_by, requested_at, made_for, marked)
           values ($1, $2, $3, $4, $5, 'waiting', $6, 0, $7, $8, $9, $10) on conflict (pupil_id, term_id, fingerprint) do nothing returning id`,
          [
            newId(),
            pupilId,
            termId,
            fingerprint,
            JSON.stringify(content),
            planBook(pieces.map(countPages)).totalPages,
            viewer.personId,
            now,
            madeFor,
            marked,
          ],
        ),
        await manager.query<{ id: string; state: BookRow['state'] }[]>(
          'select id, state from book where pupil_id = $1 and term_id = $2 and fingerprint = $3',
          [pupilId, termId, fingerprint],
        ),
      ]
      if (made || there?.state === 'failed') {
        const bookId = made?.id ?? there!.id
        await manager.update(BookRow, bookId, { state: 'waiting', pagesDone: 0 })
        await addJob(manager, 'book.make', { bookId }, bookId)
        await note(manager, now, viewer.personId, 'book.make', bookId, { madeFor, marked })
      }
      return made?.id ?? there!.id
    })
    return this.describe(id)
  }

  /** The job `book.make`. Running twice makes the same book. */
  async make(bookId: string): Promise<void> {
    const book = await this.#platform.db.manager.findOneBy(BookRow, { id: bookId })
    if (!book || book.state === 'ready') return
    await this.#progress(book, { state: 'making', pagesDone: 0 })
    try {
      const sizeBytes = await this.#draw(book)
      await this.#progress(book, {
        state: 'ready',
        pagesDone: book.pageCount,
        sizeBytes,
        finishedAt: this.#platform.clock.now(),
      })
    } catch (error) {
      await this.#progress(book, { state: 'failed' }).catch(() => undefined)
      throw error
    }
  }

  async #draw(book: BookRow): Promise<number> {
    const manager = this.#platform.db.manager
    const pupil = await manager.findOneByOrFail(PersonRow, { id: book.pupilId })
    const term = await manager.findOneByOrFail(TermRow, { id: book.termId })
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    const pages = await this.#pages(manager, book, {
      pupilName: pupil.firstName,
      timeZone: school.timeZone,
    })
    let toldAt = 0
    const draft = path.join(await mkdtemp(path.join(os.tmpdir(), 'nibquill-book-')), 'book.pdf')
    try {
      await drawBook({
        title: strings.title(pupil.firstName, term.name),
        pupilName: pupil.firstName,
        termName: term.name,
        schoolName: school.name,
        pages,
        readFile: this.#readFile,
        onPage: async (pagesDone) => {
          if (Date.now() - toldAt < PROGRESS_EVERY_MS) return
          toldAt = Date.now()
          await this.#progress(book, { pagesDone })
        },
        out: createWriteStream(draft),
      })
      const { size } = await stat(draft)
      await this.#platform.storage.put(bookKey(book.id), { file: draft, given: true })
      return size
    } finally {
      await rm(path.dirname(draft), { recursive: true, force: true })
    }
  }

  readonly #readFile = (key: string) => this.#platform.storage.read(key)

  async #pages(
    manager: EntityManager,
    book: BookRow,
    { pupilName, timeZone }: { pupilName: string; timeZone: string },
  ): Promise<BookPage[]> {
    const found = await listSharedPieces(
      manager,
      book.pupilId,
      sql`where p.id = any(${book.content.map(({ pieceId }) => pieceId)}::uuid[])`,
    )
    const expiresAt = new Date(book.requestedAt.getTime() + LINKS_LAST_MS)
    const pages: BookPage[] = []
    for (const { pieceId, versionId, reason } of book.content) {
      const piece = found.find((one) => one.id === pieceId && one.versionId === versionId)
      // What has changed since it was asked for is not drawn; `stopped` says of such a book that it
      // is to be made again.
      if (!piece || !fitsIn(book.madeFor, piece)) continue
      const token = await this.#sharing.makePageLink(manager, {
        bookId: book.id,
        pieceId,
        expiresAt,
      })
      const day = dayOf(piece.approvedAt, timeZone)
      pages.push({
        ...piece,
        reason,
        foot: [pupilName, strings.goes(piece.goes), day].filter(Boolean).join(' · '),
        printed: await printParts({ manager, readFile: this.#readFile }, piece, book),
        link: `${this.#platform.config.publicUrl}/p/${token}`,
      })
    }
    return pages
  }

  async #progress(book: BookRow, change: Partial<BookRow>): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(BookRow, book.id, change)
      await tell(manager, [book.requestedBy], { topic: 'book', id: book.id })
    })
  }

  async describe(bookId: string): Promise<BookAnswer> {
    const [book] = await this.#list(sql`b.id = ${bookId}`)
    // As the guard answers for a pupil one has nothing to do with.
    if (!book) throw new DomainError('request/not-found')
    return book
  }

  listOf(pupilId: string): Promise<BookAnswer[]> {
    return this.#list(sql`b.pupil_id = ${pupilId}`)
  }

  async #list(where: Sql): Promise<BookAnswer[]> {
    type Flat = Omit<BookAnswer, 'term' | 'requestedAt' | 'finishedAt' | 'linksEndAt'> & {
      termId: string
      termName: string
      startsOn: string
      endsOn: string
      requestedAt: Date
      finishedAt: Date | null
      linksEndAt: Date | null
    }
    const rows = await ask<Flat>(
      this.#platform.db.manager,
      sql`select b.id, b.pupil_id as "pupilId", b.state, b.page_count as "pageCount", b.pages_done as "pagesDone", b.requested_at as "requestedAt", asker.role = 'parent' as "byFamily",
         b.finished_at as "finishedAt", b.size_bytes as "sizeBytes", t.id as "termId", t.name as "termName", t.starts_on::text as "startsOn",
         t.ends_on::text as "endsOn", l.open::int as "openLinks", l.ends as "linksEndAt",
         b.marked, b.made_for as "madeFor", b.made_for = 'home' and exists (select 1 from ${raw(CONTENT)} where p.id is null or not (${SHOWN_AT_HOME})) as stopped
       from book b join term t on t.id = b.term_id join person asker on asker.id = b.requested_by left join lateral (select count(*) as open, max(l.expires_at) as ends from page_link l
           join piece p on p.id = l.piece_id join folder f on f.id = p.approved_folder_id
         where l.book_id = b.id and l.withdrawn_at is null and l.expires_at > ${this.#platform.clock.now()} and (b.made_for = 'school' or ${SHOWN_AT_HOME})) l on true
       where ${where} order by b.requested_at desc limit 50`,
    )
    return rows.map(
      ({ termId, termName, startsOn, endsOn, requestedAt, finishedAt, linksEndAt, ...book }) => ({
        ...book,
        term: { id: termId, name: termName, startsOn, endsOn },
        requestedAt: requestedAt.toISOString(),
        finishedAt: finishedAt?.toISOString() ?? null,
        linksEndAt: linksEndAt?.toISOString() ?? null,
      }),
    )
  }

  /**
   * The finished file, for somebody who takes it away.
   * @throws DomainError `book/not-ready`, `book/not-for-home`
   */
  async fetch(viewer: SignedIn, bookId: string): Promise<{ key: string; filename: string }> {
    const book = await this.describe(bookId)
    if (book.state !== 'ready') throw new DomainError('book/not-ready')
    if (book.stopped) throw new DomainError('book/not-for-home')
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      viewer.personId,
      'book.download',
      bookId,
    )
    const pupil = await this.#platform.db.manager.findOneByOrFail(PersonRow, { id: book.pupilId })
    return { key: bookKey(bookId), filename: `${pupil.firstName} ${book.term.name}.pdf` }
  }
}
