import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What a teacher expects on a starter sheet with spots on it; beside the sheet, which pupils read.
  alter table task add column sheet_expected jsonb;
  -- Whether those who began with an earlier sheet are offered the one there is.
  alter table task add column sheet_offered boolean not null default false;
  alter table task alter column sheet_offered drop default;
`

export class Sorting1700000000013 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table task drop column sheet_expected, drop column sheet_offered')
  }
}
