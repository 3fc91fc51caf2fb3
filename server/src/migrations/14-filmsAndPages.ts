import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- How many pages a paper has. Those that came before hang on tasks and notices, where nobody counts.
  alter table media add column pages integer;
`

export class FilmsAndPages1700000000014 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table media drop column pages')
  }
}
