import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Why a teacher filed something elsewhere than its pupil thought.
  alter table decision add column filed_because text not null default '';
  alter table decision alter column filed_because drop default;
`

export class FiledBecause1700000000025 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table decision drop column filed_because')
  }
}
