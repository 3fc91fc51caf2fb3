import type { SignedIn } from '../platform/routes.ts'
import { sql, type Sql } from '../platform/sql.ts'

/** SQL: whether a folder `f` is for a class somebody belongs to. */
export const inClass = ({ personId }: SignedIn): Sql =>
  sql`exists (select 1 from folder_class h join enrolment e on e.class_id = h.class_id where h.folder_id = f.id and e.person_id = ${personId})`

/** SQL: folders `f` a viewer sees; a pupil's own ones nobody else among the pupils. */
export const seenBy = (
  viewer: SignedIn,
): Sql => sql`(f.whole_school or ${viewer.leads} or ${inClass(viewer)})
  and (f.owner_id is null or f.owner_id = ${viewer.personId} or ${viewer.role !== 'pupil'})`
