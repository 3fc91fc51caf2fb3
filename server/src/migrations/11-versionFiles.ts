import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- A drawing goes on after it was handed in: each version says itself which files it holds.
  create table version_file (
    version_id uuid not null references piece_version (id) on delete cascade,
    part_id uuid not null references part (id) on delete cascade,
    role text not null,
    media_id uuid not null references media (id),
    constraint version_file_pkey primary key (version_id, part_id, role, media_id)
  );
  -- Pictures lie on a drawing, any number of them.
  alter table part_file drop constraint part_file_pkey;
  alter table part_file add constraint part_file_pkey primary key (part_id, role, media_id);
  create index version_file_media_id_idx on version_file (media_id);
  create index version_file_part_id_idx on version_file (part_id);
  insert into version_file select w.version_id, w.part_id, x.role, x.media_id from version_part w join part_file x on x.part_id = w.part_id;
`

export class VersionFiles1700000000011 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query(`
      drop table version_file;
      delete from part_file where role = 'laid';
      alter table part_file drop constraint part_file_pkey;
      alter table part_file add constraint part_file_pkey primary key (part_id, role);
    `)
  }
}
