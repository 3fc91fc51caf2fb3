import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- Whether a class taps pictures instead of typing, and whether the tray sounds.
  alter table class add column young boolean not null default false;
  update class set young = year_group ~* '^\\s*(nursery|reception|pre-?school|kindergarten|(year|y|grade|class)?\\s*[012])($|[^0-9])';
  alter table class alter column young drop default;
  alter table class add column sounds boolean not null default false;
  alter table class alter column sounds drop default;
`

export class YoungClasses1700000000009 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('alter table class drop column young, drop column sounds')
  }
}
