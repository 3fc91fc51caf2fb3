import { DomainError, goOf, judgedVersion } from '@nibquill/core'
import { buffer } from 'node:stream/consumers'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import type { Pieces } from '../pieces/pieces.ts'
import { openDocument, Pen } from '../print/pen.ts'
import { SchoolRow } from '../school/rows.ts'
import { drawPiece } from './drawPiece.ts'
import { dayOf } from './frame.ts'
import { printParts } from './printedParts.ts'
import { writingOf } from './printing.ts'
import { strings } from './strings.ts'

/** One piece on paper, for its teacher's assessment or a wall. */
export class PrintPiece {
  readonly #platform: Platform
  readonly #pieces: Pieces
  constructor(platform: Platform, pieces: Pieces) {
    this.#platform = platform
    this.#pieces = pieces
  }

  /**
   * What lies in the tray, else what was approved, as a PDF. Whole before it is answered: half a page
   * is none.
   * @param marked - With what teachers wrote on copies of it.
   * @throws DomainError `piece/not-found` where nothing of it was handed in
   */
  async print(viewer: SignedIn, pieceId: string, marked: boolean): Promise<Buffer> {
    const { db, config, storage, clock } = this.#platform
    const piece = await this.#pieces.describe(pieceId)
    const version = judgedVersion(piece.state, piece.versions)
    if (!version) throw new DomainError('piece/not-found')
    const { name, timeZone } = await db.manager.findOneOrFail(SchoolRow, { where: {} })
    const readFile = (key: string) => storage.read(key)
    const of = { versionId: version.id, parts: version.parts }
    const printed = await printParts({ manager: db.manager, readFile }, of, { marked })
    const page = {
      ...{ title: version.title, reflection: version.reflection, reason: '', printed },
      folderName: piece.folder?.name ?? '',
      termName: piece.task?.title ?? piece.term?.name ?? null,
      foot: [
        version.makers.map(({ firstName, lastName }) => `${firstName} ${lastName}`).join(', '),
        piece.className,
        strings.goes(goOf(piece.versions, version)),
        strings.handedIn(dayOf(version.submittedAt, timeZone)),
      ]
        .filter(Boolean)
        .join(' · '),
      // Opens for teachers who are signed in.
      link: `${config.publicUrl}/tray/${pieceId}`,
    }
    await note(db.manager, clock.now(), viewer.personId, 'piece.print', pieceId, { marked })
    const doc = await openDocument(version.title, name)
    const made = buffer(doc)
    const sheet = doc.struct('Document')
    doc.addStructure(sheet)
    const writing = writingOf(printed, page)
    await drawPiece(new Pen(doc), sheet, readFile, page, { number: 1, writing })
    sheet.end()
    doc.end()
    return made
  }
}
