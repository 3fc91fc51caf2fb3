import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  alter table part add column original_media_id uuid, add column tidying jsonb;
  alter table part add constraint part_original_media_id_fkey foreign key (original_media_id) references media (id);
  create index part_original_media_id_idx on part (original_media_id);
  alter table version_part add column name text;
  update version_part v set name = p.name from part p where p.id = v.part_id;
  alter table version_part alter column name set not null;
`

/** Tidied photos keep their original; versions keep the names their parts had. */
export class Making1700000000003 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(CHANGES)
  }

  async down(): Promise<void> {
    throw new Error('there is no way back to before tidied photos; restore a copy of the database')
  }
}
