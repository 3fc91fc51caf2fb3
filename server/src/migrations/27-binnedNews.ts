import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Makers hear of it where a teacher put into the bin what they had handed in.
  alter table news add column piece_id uuid references piece on delete cascade;
  create index news_piece_id_idx on news (piece_id);
`

export class BinnedNews1700000000027 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query(
      `delete from news where kind = 'binned'; alter table news drop column piece_id`,
    )
  }
}
