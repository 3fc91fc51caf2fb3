import { DomainError, SHOWN_ROLES } from '@nibquill/core'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { sql } from '../platform/sql.ts'
import { markUpIsShown } from './facts.ts'
import type { Guard } from './guard.ts'
import { listSeenComments } from './seenComments.ts'

type Hangs = {
  ownerId: string
  /** `approved`: in what was approved, and shown there rather than kept for those who make it. */
  pieces: { pieceId: string; approved: boolean }[]
  /** Pieces to which it is what their teacher said. */
  answers: string[]
  /**
   * Picks of which it is the reason. `own`: of the pupil whose piece it is, as whoever holds its page
   * is told; `ofChild`: of a child of the asking person's.
   */
  picks: { pieceId: string; own: boolean; ofChild: boolean }[]
  /** Comments in which it is said. */
  comments: string[]
  /** Private words in which it is said, that the asking person is one of the two of, or opened. */
  privateWords: { pieceId: string; opened: boolean }[]
  tasks: string[]
  notices: string[]
}

/** Who may read a file: whoever may see something it hangs on. */
export class FileGuard {
  readonly #platform: Platform
  readonly #guard: Guard
  constructor(platform: Platform, guard: Guard) {
    this.#platform = platform
    this.#guard = guard
  }

  /**
   * A file may be read through any piece it hangs in; people outside the school only through what
   * was approved.
   * @param link - Token of a page link.
   * @throws DomainError `media/not-found`, `accounts/signed-out`, or what is wrong with the link
   */
  async demand(viewer: SignedIn | null, mediaId: string, link: string | undefined): Promise<void> {
    const hangs = await this.#find(mediaId, viewer)
    if (link) {
      const { pieceId } = await this.#guard.linkedPiece(viewer, link)
      if (hangs?.pieces.some((piece) => piece.pieceId === pieceId && piece.approved)) return
      if (hangs?.picks.some((pick) => pick.pieceId === pieceId && pick.own)) return
      throw new DomainError('media/not-found')
    }
    if (!viewer) throw new DomainError('accounts/signed-out')
    if (!hangs || !(await this.#allows(viewer, hangs))) throw new DomainError('media/not-found')
  }

  async #allows(viewer: SignedIn, hangs: Hangs): Promise<boolean> {
    if (viewer.role !== 'parent' && hangs.ownerId === viewer.personId) return true
    for (const { pieceId, approved } of hangs.pieces) {
      if (await this.#guard.allowsPiece(viewer, 'piece.read', pieceId)) return true
      if (approved && (await this.#guard.allowsPiece(viewer, 'piece.read-approved', pieceId)))
        return true
    }
    for (const id of hangs.answers)
      if (await this.#guard.allowsPiece(viewer, 'piece.read', id)) return true
    for (const { pieceId, ofChild } of hangs.picks) {
      if (await this.#guard.allowsPiece(viewer, 'piece.read', pieceId)) return true
      if (ofChild && (await this.#guard.allowsPiece(viewer, 'piece.read-approved', pieceId)))
        return true
    }
    if (hangs.comments.length > 0) {
      const { manager } = this.#platform.db
      const where = sql`c.id = any(${hangs.comments}::uuid[])`
      for (const { pieceId } of await listSeenComments(manager, viewer, where))
        if (await this.#guard.allowsPiece(viewer, 'comment.read', pieceId)) return true
    }
    for (const { pieceId, opened } of hangs.privateWords)
      if (opened || (await this.#guard.allowsPiece(viewer, 'private-word.say', pieceId)))
        return true
    for (const id of hangs.tasks)
      if (await this.#guard.task(viewer, 'task.read', id).then(yes, isRefusal)) return true
    for (const id of hangs.notices)
      if (await this.#guard.notice(viewer, 'notice.read', id).then(yes, isRefusal)) return true
    return false
  }

  async #find(mediaId: string, viewer: SignedIn | null): Promise<Hangs | null> {
    const [row] = await this.#platform.db.manager.query<Hangs[]>(
      `select m.owner_id as "ownerId",
         array(select task_id from task_media where media_id = m.id union select task_id from task_sheet where media_id = m.id) as tasks,
         array(select notice_id from notice_media where media_id = m.id) as notices,
         array(select piece_id from decision where voice_media_id = m.id) as answers,
         array(select id from comment where voice_media_id = m.id) as comments,
         coalesce((select json_agg(json_build_object('pieceId', w.piece_id, 'opened', o.opened))
           from private_word w, lateral (select $4 and exists (select 1 from audit a where a.subject_id = w.pupil_id and a.person_id = $3
             and a.action = 'private-words.open' and a.happened_at > $5::timestamptz - interval '1 day') as opened) o
           where w.voice_media_id = m.id and ($3 in (w.pupil_id, w.teacher_id) or o.opened)), '[]') as "privateWords",
         coalesce((select json_agg(json_build_object('pieceId', p.id, 'own', c.pupil_id = p.pupil_id,
             'ofChild', exists (select 1 from guardian g where g.pupil_id = c.pupil_id and g.parent_id = $3)))
           from pick k join chapter c on c.id = k.chapter_id join piece p on p.id = k.piece_id where k.voice_media_id = m.id), '[]') as picks,
         coalesce((select json_agg(json_build_object('pieceId', x.piece_id, 'approved', x.approved)) from (
             select t.piece_id, false as approved from part_file f join part t on t.id = f.part_id where f.media_id = m.id
             union select p.id, f.role = any($2) and p.approved_version_id = f.version_id
               from version_file f join piece_version w on w.id = f.version_id join piece p on p.id = w.piece_id where f.media_id = m.id
             union select w.piece_id, false from (select version_id from mark_up where ink_media_id = m.id
                 union select version_id from mark_up_picture where media_id = m.id) k join piece_version w on w.id = k.version_id
               where ${markUpIsShown('w.id', '$6')}
           ) x), '[]') as pieces
       from media m where m.id = $1`,
      [
        ...[mediaId, SHOWN_ROLES, viewer?.personId ?? null, viewer?.leads ?? false],
        ...[this.#platform.clock.now(), viewer?.role === 'teacher'],
      ],
    )
    return row ?? null
  }
}

const yes = (): true => true
function isRefusal(error: unknown): false {
  if (error instanceof DomainError) return false
  throw error
}
