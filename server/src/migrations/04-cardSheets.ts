import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  create table card_sheet (
    id uuid not null,
    class_id uuid,
    pupil_id uuid,
    state text not null,
    card_count integer not null,
    cards_done integer not null,
    sealed bytea,
    requested_by uuid not null,
    requested_at timestamptz(3) not null,
    finished_at timestamptz(3),
    gone_at timestamptz(3),
    constraint card_sheet_pkey primary key (id)
  );
  create index card_sheet_requested_by_idx on card_sheet (requested_by);
  alter table card_sheet add constraint card_sheet_class_id_fkey foreign key (class_id) references class (id) on delete cascade;
  alter table card_sheet add constraint card_sheet_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade;
  alter table card_sheet add constraint card_sheet_requested_by_fkey foreign key (requested_by) references person (id) on delete cascade;
`

/** Name cards are drawn by a job. */
export class CardSheets1700000000004 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(CHANGES)
  }

  async down(): Promise<void> {
    throw new Error('there is no way back to before card sheets; restore a copy of the database')
  }
}
