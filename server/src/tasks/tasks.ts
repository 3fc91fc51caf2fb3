import type { Task } from '@nibquill/contract'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'

/** Work set by teachers. */
export class Tasks {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** Open tasks by due moment, those without one last: with a pupil's own pieces, or with a teacher's counts. */
  async list(viewer: SignedIn): Promise<Task[]> {
    const rows = await this.#platform.db.manager.query<FlatTask[]>(
      `select t.id, t.title, t.instructions, t.due_at as "dueAt", t.folder_changeable as "folderChangeable", c.name as "className",
         f.id as "folderId", f.name as "folderName", f.symbol, f.colour, ${viewer.role === 'pupil' ? MY_PIECES : COUNTS}
       from task t join class c on c.id = t.class_id join folder f on f.id = t.folder_id join school_year y on y.id = c.school_year_id
       where t.closed_at is null and y.ends_on >= $2::date and exists
         (select 1 from enrolment e where e.class_id = t.class_id and e.person_id = $1)
       order by t.due_at nulls last, t.created_at`,
      [viewer.personId, this.#platform.clock.now()],
    )
    return rows.map(({ folderId, folderName, symbol, colour, dueAt, ...task }) => ({
      ...task,
      dueAt: dueAt?.toISOString() ?? null,
      folder: { id: folderId, name: folderName, symbol, colour },
    }))
  }
}

type FlatTask = Omit<Task, 'folder' | 'dueAt'> & {
  dueAt: Date | null
  folderId: string
  folderName: string
  symbol: Task['folder']['symbol']
  colour: Task['folder']['colour']
}

const MY_PIECES = `null as counts, coalesce((select json_agg(json_build_object('id', p.id, 'state', p.state) order by p.created_at desc)
  from piece p join piece_maker m on m.piece_id = p.id where p.task_id = t.id and m.person_id = $1 and p.binned_at is null), '[]') as "myPieces"`

/** Each pupil counts once, by their newest piece for the task. */
const COUNTS = `'[]'::json as "myPieces", (select json_build_object('pupils', count(*),
    'draft', count(*) filter (where s.state = 'draft'), 'submitted', count(*) filter (where s.state = 'submitted'),
    'returned', count(*) filter (where s.state = 'returned'), 'approved', count(*) filter (where s.state = 'approved'))
  from enrolment e join person u on u.id = e.person_id and u.role = 'pupil'
    left join lateral (select p.state from piece p join piece_maker m on m.piece_id = p.id and m.person_id = u.id
      where p.task_id = t.id and p.binned_at is null order by p.created_at desc limit 1) s on true
  where e.class_id = t.class_id) as counts`
