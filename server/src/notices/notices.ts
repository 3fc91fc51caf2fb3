import type { NewsItem } from '@nibquill/contract'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'

/** What people are told about their work. */
export class Notices {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  async listNews(viewer: SignedIn): Promise<NewsItem[]> {
    const rows = await this.#platform.db.manager.query<(Omit<NewsItem, 'happenedAt'> & { happenedAt: Date })[]>(
      `select n.id, case d.move when 'approve' then 'approved' else 'returned' end as kind, d.piece_id as "pieceId", w.title as "pieceTitle",
         f.name as "folderName", trim(u.first_name || ' ' || u.last_name) as "teacherName", d.message, n.happened_at as "happenedAt",
         n.seen_at is not null as seen
       from news n join decision d on d.id = n.decision_id join piece_version w on w.id = d.version_id join piece p on p.id = d.piece_id
         join person u on u.id = d.decided_by left join folder f on f.id = d.folder_id
       where n.person_id = $1 and p.binned_at is null order by n.happened_at desc, n.id desc limit 20`,
      [viewer.personId],
    )
    return rows.map((row) => ({ ...row, happenedAt: row.happenedAt.toISOString() }))
  }

  async markSeen(viewer: SignedIn): Promise<void> {
    await this.#platform.db.manager.query('update news set seen_at = $2 where person_id = $1 and seen_at is null', [
      viewer.personId,
      this.#platform.clock.now(),
    ])
  }
}
