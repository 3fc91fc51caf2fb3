import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- A teacher's own marker: come back to this, and why.
  create table second_look (
    piece_id uuid not null,
    reason text not null,
    asked_by uuid not null,
    asked_at timestamptz(3) not null,
    done_at timestamptz(3),
    constraint second_look_pkey primary key (piece_id),
    constraint second_look_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    constraint second_look_asked_by_fkey foreign key (asked_by) references person (id)
  );
`

export class SecondLooks1700000000020 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query('drop table second_look')
  }
}
