import type { Standing } from '@nibquill/contract'

/** SQL: the pupils `u` a task `t` is for, each with their newest piece `s` for it. */
export const ITS_PUPILS = `join enrolment e on e.class_id = t.class_id join person u on u.id = e.person_id and u.role = 'pupil' and u.left_at is null
    and (t.for_all or exists (select 1 from task_pupil o where o.task_id = t.id and o.person_id = u.id))
  left join lateral (select p.id, p.state from piece p join piece_maker m on m.piece_id = p.id and m.person_id = u.id
    where p.task_id = t.id and p.binned_at is null order by p.created_at desc limit 1) s on true`

/** A pupil as a row says them. */
export type FlatPupil = Omit<Standing['pupil'], 'peg'> & Standing['pupil']['peg']
export const pupilOf = ({ symbol, colour, ...pupil }: FlatPupil): Standing['pupil'] => ({
  ...pupil,
  peg: { symbol, colour },
})
