import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- When a teacher last asked for a piece that is not handed in.
  alter table piece add column nudged_at timestamptz(3);
`

export class NudgedPieces1700000000019 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table piece drop column nudged_at')
  }
}
