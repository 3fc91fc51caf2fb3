import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  alter table class add column pupils_propose boolean, add column external_id text;
  update class set pupils_propose = false;
  alter table class alter column pupils_propose set not null;
  alter table person add column leads boolean, add column external_id text, add column left_at timestamptz(3);
  -- Whoever was the school's first member of staff set it up, and leads it.
  update person set leads = (role = 'office' or id = (select id from person where role = 'teacher' order by created_at, id limit 1));
  alter table person alter column leads set not null;

  create table folder_class (
    folder_id uuid not null,
    class_id uuid not null,
    constraint folder_class_pkey primary key (folder_id, class_id)
  );
  insert into folder_class select id, class_id from folder where class_id is not null;
  alter table folder add column whole_school boolean, add column owner_id uuid, add column agreed_at timestamptz(3), add column version integer;
  update folder set whole_school = class_id is null, version = 1;
  alter table folder alter column whole_school set not null, alter column version set not null, drop column class_id;

  alter table task add column unit_id uuid, add column strand_id uuid, add column steps jsonb, add column asks jsonb, add column opens_at timestamptz(3),
    add column for_all boolean, add column version integer, add column position integer;
  update task set steps = '["finished"]', asks = '[]', for_all = true, version = 1, position = 0;
  alter table task alter column steps set not null, alter column asks set not null, alter column for_all set not null,
    alter column version set not null, alter column position set not null;
  alter table piece add column class_piece_id uuid;
`

const TABLES = `
  create table class_list (
    id uuid not null,
    school_id uuid not null,
    asked_by uuid not null,
    plan jsonb not null,
    state text not null,
    rows_done integer not null,
    created_at timestamptz(3) not null,
    finished_at timestamptz(3),
    constraint class_list_pkey primary key (id)
  );
  create table class_piece (
    id uuid not null,
    class_id uuid not null,
    folder_id uuid not null,
    title text not null,
    instructions text not null,
    created_by uuid not null,
    created_at timestamptz(3) not null,
    closed_at timestamptz(3),
    constraint class_piece_pkey primary key (id)
  );
  create table closed_day (
    id uuid not null,
    school_year_id uuid not null,
    name text not null,
    starts_on date not null,
    ends_on date not null,
    constraint closed_day_pkey primary key (id)
  );
  create table mail (
    id uuid not null,
    recipient text not null,
    subject text not null,
    body text not null,
    state text not null,
    created_at timestamptz(3) not null,
    sent_at timestamptz(3),
    constraint mail_pkey primary key (id)
  );
  create table notice (
    id uuid not null,
    class_id uuid not null,
    audience text not null,
    words text not null,
    created_by uuid not null,
    created_at timestamptz(3) not null,
    withdrawn_at timestamptz(3),
    constraint notice_pkey primary key (id)
  );
  create table notice_media (
    notice_id uuid not null,
    media_id uuid not null,
    position integer not null,
    constraint notice_media_pkey primary key (notice_id, media_id)
  );
  create table notice_seen (
    notice_id uuid not null,
    person_id uuid not null,
    seen_at timestamptz(3) not null,
    constraint notice_seen_pkey primary key (notice_id, person_id)
  );
  create table nudge (
    task_id uuid not null,
    person_id uuid not null,
    nudged_by uuid not null,
    nudged_at timestamptz(3) not null,
    constraint nudge_pkey primary key (task_id, person_id)
  );
  create table password_link (
    id uuid not null,
    person_id uuid not null,
    token_hash text not null,
    created_at timestamptz(3) not null,
    expires_at timestamptz(3) not null,
    used_at timestamptz(3),
    constraint password_link_token_hash_key unique (token_hash),
    constraint password_link_pkey primary key (id)
  );
  create table roll_over (
    id uuid not null,
    from_year_id uuid not null,
    to_year_id uuid not null,
    changes jsonb not null,
    done_by uuid not null,
    done_at timestamptz(3) not null,
    undone_at timestamptz(3),
    constraint roll_over_pkey primary key (id)
  );
  create table task_media (
    task_id uuid not null,
    media_id uuid not null,
    role text not null,
    position integer not null,
    constraint task_media_pkey primary key (task_id, media_id)
  );
  create table task_pupil (
    task_id uuid not null,
    person_id uuid not null,
    constraint task_pupil_pkey primary key (task_id, person_id)
  );
  create table task_tick (
    task_id uuid not null,
    person_id uuid not null,
    ticked_at timestamptz(3) not null,
    constraint task_tick_pkey primary key (task_id, person_id)
  );
  create table unit (
    id uuid not null,
    class_id uuid not null,
    title text not null,
    created_at timestamptz(3) not null,
    constraint unit_pkey primary key (id)
  );
`

const INDEXES = `
  create index class_list_school_id_idx on class_list (school_id);
  create index class_piece_class_id_idx on class_piece (class_id);
  create index closed_day_school_year_id_idx on closed_day (school_year_id);
  create index folder_class_class_id_idx on folder_class (class_id);
  create index mail_created_at_idx on mail (created_at);
  create index notice_class_id_created_at_idx on notice (class_id, created_at);
  create index notice_media_media_id_idx on notice_media (media_id);
  create index nudge_person_id_idx on nudge (person_id);
  create index person_school_id_role_idx on person (school_id, role);
  create index piece_class_piece_id_idx on piece (class_piece_id);
  create index task_media_media_id_idx on task_media (media_id);
  create index task_unit_id_idx on task (unit_id);
  create index unit_class_id_idx on unit (class_id);
`

const REFERENCES = `
  alter table class_list
    add constraint class_list_school_id_fkey foreign key (school_id) references school (id),
    add constraint class_list_asked_by_fkey foreign key (asked_by) references person (id);
  alter table class_piece
    add constraint class_piece_class_id_fkey foreign key (class_id) references class (id),
    add constraint class_piece_folder_id_fkey foreign key (folder_id) references folder (id),
    add constraint class_piece_created_by_fkey foreign key (created_by) references person (id);
  alter table closed_day
    add constraint closed_day_school_year_id_fkey foreign key (school_year_id) references school_year (id) on delete cascade;
  alter table folder
    add constraint folder_owner_id_fkey foreign key (owner_id) references person (id);
  alter table folder_class
    add constraint folder_class_folder_id_fkey foreign key (folder_id) references folder (id) on delete cascade,
    add constraint folder_class_class_id_fkey foreign key (class_id) references class (id);
  alter table notice
    add constraint notice_class_id_fkey foreign key (class_id) references class (id),
    add constraint notice_created_by_fkey foreign key (created_by) references person (id);
  alter table notice_media
    add constraint notice_media_notice_id_fkey foreign key (notice_id) references notice (id) on delete cascade,
    add constraint notice_media_media_id_fkey foreign key (media_id) references media (id);
  alter table notice_seen
    add constraint notice_seen_notice_id_fkey foreign key (notice_id) references notice (id) on delete cascade,
    add constraint notice_seen_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table nudge
    add constraint nudge_task_id_fkey foreign key (task_id) references task (id) on delete cascade,
    add constraint nudge_person_id_fkey foreign key (person_id) references person (id) on delete cascade,
    add constraint nudge_nudged_by_fkey foreign key (nudged_by) references person (id);
  alter table password_link
    add constraint password_link_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table piece
    add constraint piece_class_piece_id_fkey foreign key (class_piece_id) references class_piece (id);
  alter table roll_over
    add constraint roll_over_from_year_id_fkey foreign key (from_year_id) references school_year (id),
    add constraint roll_over_to_year_id_fkey foreign key (to_year_id) references school_year (id),
    add constraint roll_over_done_by_fkey foreign key (done_by) references person (id);
  alter table task
    add constraint task_unit_id_fkey foreign key (unit_id) references unit (id),
    add constraint task_strand_id_fkey foreign key (strand_id) references strand (id);
  alter table task_media
    add constraint task_media_task_id_fkey foreign key (task_id) references task (id) on delete cascade,
    add constraint task_media_media_id_fkey foreign key (media_id) references media (id);
  alter table task_pupil
    add constraint task_pupil_task_id_fkey foreign key (task_id) references task (id) on delete cascade,
    add constraint task_pupil_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table task_tick
    add constraint task_tick_task_id_fkey foreign key (task_id) references task (id) on delete cascade,
    add constraint task_tick_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table unit
    add constraint unit_class_id_fkey foreign key (class_id) references class (id);
`

/**
 * What a school needs to set itself up: staff, lists, folders for several classes, units, notices,
 * mail, the year's turn.
 */
export class SettingUp1700000000001 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(CHANGES)
    await runner.query(TABLES)
    await runner.query(INDEXES)
    await runner.query(REFERENCES)
  }

  async down(): Promise<void> {
    throw new Error(
      'a folder for several classes cannot become one for a single class: restore a backup instead',
    )
  }
}
