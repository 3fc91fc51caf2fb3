import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What a teacher says to a piece can be said instead of written.
  alter table decision add column voice_media_id uuid;
  alter table decision add constraint decision_voice_media_id_fkey foreign key (voice_media_id) references media (id);
  create index decision_voice_media_id_idx on decision (voice_media_id);
`

export class SpokenAnswers1700000000015 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table decision drop column voice_media_id')
  }
}
