import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Why something was picked can be said instead of written.
  alter table pick add column voice_media_id uuid;
  alter table pick add constraint pick_voice_media_id_fkey foreign key (voice_media_id) references media (id);
  create index pick_voice_media_id_idx on pick (voice_media_id);
`

export class SpokenReasons1700000000017 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table pick drop column voice_media_id')
  }
}
