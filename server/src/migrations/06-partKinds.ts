import type { MigrationInterface, QueryRunner } from 'typeorm'

/**
 * Kinds of files and of parts: what is made of a file stands in a table, and a part has files by
 * their role and what its kind keeps beside them.
 */
const CHANGES = `
  alter table media add column kind text;
  update media set kind = case when type like 'audio/%' then 'sound' when type = 'application/pdf' then 'paper' else 'picture' end;
  alter table media alter column kind set not null;

  create table media_form (
    media_id uuid not null,
    form text not null,
    key text not null,
    type text not null,
    size_bytes integer,
    width integer,
    height integer,
    duration_ms integer,
    constraint media_form_pkey primary key (media_id, form)
  );
  alter table media_form add constraint media_form_media_id_fkey foreign key (media_id) references media (id) on delete cascade;
  -- Never enlarged; how many bytes each has was not noted so far.
  insert into media_form (media_id, form, key, type, width, height)
    select m.id, s.size::text, m.kept_sha256 || '-' || s.size || '.jpg', 'image/jpeg',
      round(m.width * least(1, s.size::numeric / greatest(m.width, m.height))),
      round(m.height * least(1, s.size::numeric / greatest(m.width, m.height)))
    from media m cross join (values (320), (960), (2048)) s(size) where m.kind = 'picture' and m.state = 'ready';

  create table part_file (
    part_id uuid not null,
    role text not null,
    media_id uuid not null,
    constraint part_file_pkey primary key (part_id, role)
  );
  alter table part_file add constraint part_file_part_id_fkey foreign key (part_id) references part (id) on delete cascade;
  alter table part_file add constraint part_file_media_id_fkey foreign key (media_id) references media (id);
  insert into part_file select id, 'picture', media_id from part;
  insert into part_file select id, 'taken', original_media_id from part where original_media_id is not null;
  create index part_file_media_id_idx on part_file (media_id);

  alter table part add column content jsonb not null default '{}';
  update part set content = jsonb_build_object('tidying', tidying) where tidying is not null;
  alter table part alter column content drop default, drop column media_id, drop column original_media_id, drop column tidying;
  alter table version_part add column content jsonb;
  update version_part w set content = t.content from part t where t.id = w.part_id;
  alter table version_part alter column content set not null;
`

export class PartKinds1700000000006 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(): Promise<void> {
    throw new Error('what was made of each kind is not taken apart again')
  }
}
