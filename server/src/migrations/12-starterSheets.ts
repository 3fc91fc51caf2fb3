import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- A drawing with things already on it, copied to each pupil with a task: its ink, and pictures laid on it.
  create table task_sheet (
    task_id uuid not null references task (id) on delete cascade,
    role text not null,
    media_id uuid not null references media (id),
    constraint task_sheet_pkey primary key (task_id, role, media_id)
  );
  create index task_sheet_media_id_idx on task_sheet (media_id);
`

export class StarterSheets1700000000012 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('drop table task_sheet')
  }
}
