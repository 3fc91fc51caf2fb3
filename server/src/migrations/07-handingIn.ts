import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Whether a task asks what the pupil thinks before it is handed in.
  alter table task add column asks_thoughts boolean not null default false;
  alter table task alter column asks_thoughts drop default;
`

export class HandingIn1700000000007 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table task drop column asks_thoughts')
  }
}
