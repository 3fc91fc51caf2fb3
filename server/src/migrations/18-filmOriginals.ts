import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- How long a school keeps films as they were sent, beside what every browser plays.
  alter table school add column film_originals text not null default 'always';
  alter table school alter column film_originals drop default;
  -- The nightly job asks of each stored file whether something is made of it.
  create index media_form_key_idx on media_form (key);
`

export class FilmOriginals1700000000018 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('drop index media_form_key_idx')
    await queries.query('alter table school drop column film_originals')
  }
}
