import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What is said in a recording, typed by a teacher. Its makers' own words stand with their part.
  alter table media add column transcript text not null default '';
  alter table media alter column transcript drop default;
  -- How far what is made of it is, where that takes long.
  alter table media add column made_percent integer not null default 0;
  alter table media alter column made_percent drop default;
`

export class Transcripts1700000000016 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table media drop column transcript, drop column made_percent')
  }
}
