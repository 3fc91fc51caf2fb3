import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What several made together: each keeps it in a folder of their own, and thinks of it for themselves.
  create table kept_in (
    person_id uuid not null references person,
    piece_id uuid not null references piece on delete cascade,
    folder_id uuid not null references folder on delete cascade,
    kept_at timestamptz(3) not null,
    primary key (person_id, piece_id)
  );
  create index on kept_in (piece_id);
  create index on kept_in (folder_id);
  alter table comment add column thoughts boolean not null default false;
  alter table comment alter column thoughts drop default;
`

export class OwnFolders1700000000026 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('drop table kept_in; alter table comment drop column thoughts')
  }
}
