import {
  seesComment,
  type CommentReader,
  type SeenComment,
} from '@nibquill/core/comments/seesComment'
import type { EntityManager } from 'typeorm'
import type { SignedIn } from '../platform/routes.ts'
import { ask, sql, type Sql } from '../platform/sql.ts'

type Facts = Omit<SeenComment, 'answers'> & {
  id: string
  pieceId: string
  makes: boolean
  childIds: string[]
  answersById: string | null
  answersByRole: CommentReader['role'] | null
}

/**
 * The comments `c` that somebody sees, as far as who may see the piece is asked elsewhere; first said
 * first.
 * @param where - Which are looked at.
 */
export async function listSeenComments(
  manager: EntityManager,
  { personId, role }: Pick<SignedIn, 'personId' | 'role'>,
  where: Sql,
): Promise<{ id: string; pieceId: string }[]> {
  if (role === 'office') return []
  const rows = await ask<Facts>(
    manager,
    sql`select c.id, c.piece_id as "pieceId", c.state, c.thoughts, c.by_id as "byId", u.role as "byRole", a.by_id as "answersById", o.role as "answersByRole",
         array(select g.pupil_id from guardian g where g.parent_id = c.by_id) as "pupilsOfBy",
         array(select g.pupil_id from guardian g where g.parent_id = ${personId}) as "childIds",
         exists (select 1 from piece_maker m where m.piece_id = c.piece_id and m.person_id = ${personId}) as makes
       from comment c join person u on u.id = c.by_id left join comment a on a.id = c.answers_id left join person o on o.id = a.by_id
       where ${where} order by c.said_at, c.id`,
  )
  return rows
    .filter(({ makes, childIds, answersById, answersByRole, ...comment }) =>
      seesComment(
        { personId, role, makes, childIds },
        {
          ...comment,
          answers: answersById ? { byId: answersById, byRole: answersByRole ?? 'pupil' } : null,
        },
      ),
    )
    .map(({ id, pieceId }) => ({ id, pieceId }))
}
