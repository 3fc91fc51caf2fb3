import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What was approved may be sent back later: one decision of a kind for each version.
  alter table decision drop constraint decision_version_id_key;
  alter table decision add constraint decision_version_id_move_key unique (version_id, move);
`

export class Afterwards1700000000008 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query(`
      delete from decision d using decision later
        where later.version_id = d.version_id and (later.decided_at, later.id) > (d.decided_at, d.id);
      alter table decision drop constraint decision_version_id_move_key;
      alter table decision add constraint decision_version_id_key unique (version_id);
    `)
  }
}
