import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Whether what teachers wrote on copies stands in a book.
  alter table book add column marked boolean not null default false;
  alter table book alter column marked drop default;
`

export class MarkedBooks1700000000024 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table book drop column marked')
  }
}
