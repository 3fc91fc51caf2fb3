import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Sentences a teacher says again and again.
  create table sentence_stock (
    person_id uuid not null,
    sentences jsonb not null,
    constraint sentence_stock_pkey primary key (person_id),
    constraint sentence_stock_person_id_fkey foreign key (person_id) references person (id) on delete cascade
  );
`

export class SentenceStock1700000000023 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('drop table sentence_stock')
  }
}
