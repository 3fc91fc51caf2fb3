import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What a class list did, so that it can be taken back; of lists taken over before, unknown.
  alter table class_list add column changes jsonb;
`

export class TakenLists1700000000010 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table class_list drop column changes')
  }
}
