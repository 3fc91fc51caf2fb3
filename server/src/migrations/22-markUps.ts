import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What a teacher wrote on a copy of a part as it was handed in.
  create table mark_up (
    version_id uuid not null,
    part_id uuid not null,
    ink_media_id uuid not null,
    by_id uuid not null,
    changed_at timestamptz(3) not null,
    constraint mark_up_pkey primary key (version_id, part_id),
    constraint mark_up_version_id_fkey foreign key (version_id) references piece_version (id) on delete cascade,
    constraint mark_up_part_id_fkey foreign key (part_id) references part (id) on delete cascade,
    constraint mark_up_ink_media_id_fkey foreign key (ink_media_id) references media (id),
    constraint mark_up_by_id_fkey foreign key (by_id) references person (id)
  );
  create index mark_up_part_id_idx on mark_up (part_id);
  create index mark_up_ink_media_id_idx on mark_up (ink_media_id);
  create table mark_up_picture (
    version_id uuid not null,
    part_id uuid not null,
    media_id uuid not null,
    constraint mark_up_picture_pkey primary key (version_id, part_id, media_id),
    constraint mark_up_picture_version_id_fkey foreign key (version_id) references piece_version (id) on delete cascade,
    constraint mark_up_picture_part_id_fkey foreign key (part_id) references part (id) on delete cascade,
    constraint mark_up_picture_media_id_fkey foreign key (media_id) references media (id)
  );
  create index mark_up_picture_part_id_idx on mark_up_picture (part_id);
  create index mark_up_picture_media_id_idx on mark_up_picture (media_id);
`

export class MarkUps1700000000022 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('drop table mark_up_picture; drop table mark_up')
  }
}
