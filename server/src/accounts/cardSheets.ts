import type { CardSheet, PrintCards } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { PassThrough } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import type { SignedIn } from '../platform/routes.ts'
import { SchoolRow } from '../school/rows.ts'
import { drawCards } from './drawCards.ts'
import type { CardsWhere, NameCards, PreparedCard } from './nameCards.ts'
import { CardSheetRow } from './rows.ts'
import { strings } from './strings.ts'

/** Long enough to find a printer that has paper, short enough that secrets lie nowhere. */
const KEPT_MS = 30 * 60_000
const PROGRESS_EVERY_MS = 400

/** Sheets of name cards: asked for, drawn by a job, fetched by whoever asked, then forgotten. */
export class CardSheets {
  readonly #platform: Platform
  readonly #nameCards: NameCards
  constructor(platform: Platform, nameCards: NameCards) {
    this.#platform = platform
    this.#nameCards = nameCards
  }

  /**
   * Asks for a sheet. Asked twice before the first is drawn, there is one: else the second would
   * stop the cards of the first.
   * One that failed is begun again at once.
   * @throws DomainError `accounts/no-cards`
   */
  async ask(viewer: SignedIn, order: PrintCards): Promise<CardSheet> {
    const where = { classId: null, pupilId: null, ...order }
    const now = this.#platform.clock.now()
    const id = await this.#platform.db.transaction(async (manager) => {
      await manager.query('select 1 from person where id = $1 for update', [viewer.personId])
      const [under] = await manager.query<Pick<CardSheetRow, 'id' | 'state'>[]>(
        `select id, state from card_sheet where requested_by = $1 and state <> 'ready'
           and class_id is not distinct from $2::uuid and pupil_id is not distinct from $3::uuid`,
        [viewer.personId, where.classId, where.pupilId],
      )
      if (under && under.state !== 'failed') return under.id
      const cardCount = (await this.#nameCards.prepare(manager, where)).length
      if (cardCount === 0) throw new DomainError('accounts/no-cards')
      const sheet: CardSheetRow = {
        id: under?.id ?? newId(),
        ...where,
        state: 'waiting',
        cardCount,
        cardsDone: 0,
        sealed: null,
        requestedBy: viewer.personId,
        requestedAt: now,
        finishedAt: null,
        goneAt: null,
      }
      await manager.save(CardSheetRow, sheet)
      await addJob(manager, 'accounts.draw-cards', { sheetId: sheet.id }, sheet.id)
      await note(manager, now, viewer.personId, 'name-cards', where.classId ?? where.pupilId)
      return sheet.id
    })
    return this.describe(viewer, id)
  }

  /**
   * The job `accounts.draw-cards`. Codes are put into use in the one step that makes the sheet
   * ready:
   * cut short anywhere before, the old cards still work; run twice, the first sheet stands.
   */
  async draw(sheetId: string): Promise<void> {
    const manager = this.#platform.db.manager
    const sheet = await manager.findOneBy(CardSheetRow, { id: sheetId })
    if (!sheet || sheet.state === 'ready') return
    try {
      const cards = await this.#nameCards.prepare(manager, sheet)
      if (sheet.state === 'failed' && (await this.#isOvertaken(sheet, cards)))
        return await this.forget(sheetId)
      await this.#change(manager, sheet, {
        state: 'drawing',
        cardsDone: 0,
        cardCount: cards.length,
      })
      const pdf = await this.#drawPdf(sheet, cards)
      await this.#finish(sheet, cards, pdf)
    } catch (error) {
      await this.#change(manager, sheet, { state: 'failed' }).catch(() => undefined)
      throw error
    }
  }

  /**
   * Whether somebody made newer cards while this sheet waited for its next try: drawn now, it would
   * stop those.
   */
  async #isOvertaken(
    { requestedAt }: CardSheetRow,
    cards: readonly PreparedCard[],
  ): Promise<boolean> {
    const [newer] = await this.#platform.db.manager.query<unknown[]>(
      'select 1 from name_card where pupil_id = any($1::uuid[]) and created_at > $2 limit 1',
      [cards.map(({ pupilId }) => pupilId), requestedAt],
    )
    return newer !== undefined
  }

  async #drawPdf(sheet: CardSheetRow, cards: readonly PreparedCard[]): Promise<Buffer> {
    const { name } = await this.#platform.db.manager.findOneOrFail(SchoolRow, { where: {} })
    const out = new PassThrough()
    const pdf = buffer(out)
    let toldAt = Date.now()
    const sheetOf = {
      title: strings.cards(name),
      schoolName: name,
      site: this.#platform.config.publicUrl,
    }
    await drawCards(cards, sheetOf, out, async (cardsDone) => {
      if (Date.now() - toldAt < PROGRESS_EVERY_MS) return
      toldAt = Date.now()
      await this.#change(this.#platform.db.manager, sheet, { cardsDone })
    })
    return pdf
  }

  async #finish(sheet: CardSheetRow, cards: readonly PreparedCard[], pdf: Buffer): Promise<void> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const before = await manager.findOne(CardSheetRow, {
        where: { id: sheet.id },
        lock: { mode: 'pessimistic_write' },
      })
      if (!before || before.state === 'ready') return
      for (const { pupilId, code } of cards) await this.#nameCards.issue(manager, pupilId, code)
      await this.#nameCards.tellTeachers(manager, sheet.requestedBy, sheet)
      await this.#change(manager, sheet, {
        state: 'ready',
        cardsDone: cards.length,
        sealed: this.#platform.secrets.sealBytes(pdf),
        finishedAt: now,
        goneAt: new Date(now.getTime() + KEPT_MS),
      })
      await addJob(manager, 'accounts.forget-cards', { sheetId: sheet.id }, sheet.id, {
        waitMs: KEPT_MS,
      })
    })
  }

  async #change(
    manager: EntityManager,
    sheet: CardSheetRow,
    change: Partial<CardSheetRow>,
  ): Promise<void> {
    await manager.update(CardSheetRow, sheet.id, change)
    await tell(manager, [sheet.requestedBy], { topic: 'accounts', id: sheet.id })
  }

  /** The job `accounts.forget-cards`. */
  async forget(sheetId: string): Promise<void> {
    await this.#platform.db.manager.delete(CardSheetRow, sheetId)
  }

  /** @throws DomainError `request/not-found` for other people's sheets and those that are gone */
  async describe(viewer: SignedIn, sheetId: string): Promise<CardSheet> {
    const [sheet] = await this.#list(viewer, sheetId)
    if (!sheet) throw new DomainError('request/not-found')
    return sheet
  }

  listOf(viewer: SignedIn): Promise<CardSheet[]> {
    return this.#list(viewer, null)
  }

  async #list(viewer: SignedIn, sheetId: string | null): Promise<CardSheet[]> {
    type Flat = CardsWhere &
      Pick<CardSheetRow, 'id' | 'state' | 'cardCount' | 'cardsDone' | 'finishedAt' | 'goneAt'>
    const rows = await this.#platform.db.manager.query<Flat[]>(
      `select id, class_id as "classId", pupil_id as "pupilId", state, card_count as "cardCount", cards_done as "cardsDone",
         finished_at as "finishedAt", gone_at as "goneAt"
       from card_sheet where requested_by = $1 and ($2::uuid is null or id = $2) and (gone_at is null or gone_at > $3)
       order by requested_at desc, id desc`,
      [viewer.personId, sheetId, this.#platform.clock.now()],
    )
    return rows.map(({ finishedAt, goneAt, ...sheet }) => ({
      ...sheet,
      finishedAt: finishedAt?.toISOString() ?? null,
      goneAt: goneAt?.toISOString() ?? null,
    }))
  }

  /** @returns the PDF @throws DomainError `accounts/cards-not-ready`, `request/not-found` */
  async read(viewer: SignedIn, sheetId: string): Promise<Buffer> {
    await this.describe(viewer, sheetId)
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      viewer.personId,
      'name-cards.download',
      sheetId,
    )
    const { sealed } = await this.#platform.db.manager.findOneByOrFail(CardSheetRow, {
      id: sheetId,
    })
    if (!sealed) throw new DomainError('accounts/cards-not-ready')
    return this.#platform.secrets.unsealBytes(sealed)
  }
}
