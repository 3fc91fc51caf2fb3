import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = `
  create table door (
    class_id uuid not null,
    switch text not null,
    switched_on date,
    opens_at text not null,
    closes_at text not null,
    tablet_limit integer not null,
    asks_secret boolean not null,
    network text,
    constraint door_pkey primary key (class_id)
  );
  create table door_card (
    id uuid not null,
    class_id uuid not null,
    code_hash text not null,
    created_at timestamptz(3) not null,
    revoked_at timestamptz(3),
    constraint door_card_code_hash_key unique (code_hash),
    constraint door_card_pkey primary key (id)
  );
  create table tablet (
    id uuid not null,
    class_id uuid not null,
    number integer not null,
    token_hash text not null,
    browser_hash text not null,
    opened_at timestamptz(3) not null,
    seen_at timestamptz(3) not null,
    ended_at timestamptz(3),
    constraint tablet_token_hash_key unique (token_hash),
    constraint tablet_pkey primary key (id)
  );
  create table picture_secret (
    pupil_id uuid not null,
    symbols jsonb not null,
    wrong_tries integer not null,
    wait_until timestamptz(3),
    constraint picture_secret_pkey primary key (pupil_id)
  );
  create table one_time_secret (
    person_id uuid not null,
    sealed text not null,
    confirmed_at timestamptz(3),
    last_step integer not null,
    constraint one_time_secret_pkey primary key (person_id)
  );
  create table spare_code (
    id uuid not null,
    person_id uuid not null,
    code_hash text not null,
    constraint spare_code_code_hash_key unique (code_hash),
    constraint spare_code_pkey primary key (id)
  );
  create table mail_code (
    id uuid not null,
    person_id uuid not null,
    code_hash text not null,
    tries integer not null,
    created_at timestamptz(3) not null,
    expires_at timestamptz(3) not null,
    constraint mail_code_pkey primary key (id)
  );
`

const CHANGES = `
  alter table session add column way text, add column browser_hash text, add column tablet_id uuid, add column ends_at timestamptz(3);
  update session set way = case when name_card_id is not null then 'card' when invitation_id is not null then 'invitation' else 'password' end;
  alter table session alter column way set not null;
`

const INDEXES = `
  create index mail_code_person_id_idx on mail_code (person_id);
  create index session_tablet_id_idx on session (tablet_id);
  create index spare_code_person_id_idx on spare_code (person_id);
  create index tablet_class_id_idx on tablet (class_id);
`

const REFERENCES = `
  alter table door add constraint door_class_id_fkey foreign key (class_id) references class (id) on delete cascade;
  alter table door_card add constraint door_card_class_id_fkey foreign key (class_id) references class (id) on delete cascade;
  alter table mail_code add constraint mail_code_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table one_time_secret add constraint one_time_secret_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table picture_secret add constraint picture_secret_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade;
  alter table session add constraint session_tablet_id_fkey foreign key (tablet_id) references tablet (id) on delete cascade;
  alter table spare_code add constraint spare_code_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table tablet add constraint tablet_class_id_fkey foreign key (class_id) references class (id) on delete cascade;
`

/**
 * The class's door and its tablets, picture secrets, second proofs for staff, codes by mail for
 * parents.
 */
export class Arriving1700000000002 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(CHANGES)
    await runner.query(TABLES)
    await runner.query(INDEXES)
    await runner.query(REFERENCES)
  }

  async down(): Promise<void> {
    throw new Error('there is no way back to before doors; restore a copy of the database')
  }
}
