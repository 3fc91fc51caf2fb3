import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = `
  create table audit (
    id uuid not null,
    happened_at timestamptz(3) not null,
    person_id uuid,
    action text not null,
    subject_id uuid,
    constraint audit_pkey primary key (id)
  );
  create table book (
    id uuid not null,
    pupil_id uuid not null,
    term_id uuid not null,
    fingerprint text not null,
    content jsonb not null,
    state text not null,
    page_count integer not null,
    pages_done integer not null,
    size_bytes integer,
    requested_by uuid not null,
    requested_at timestamptz(3) not null,
    finished_at timestamptz(3),
    constraint book_pupil_id_term_id_fingerprint_key unique (pupil_id, term_id, fingerprint),
    constraint book_pkey primary key (id)
  );
  create table chapter (
    id uuid not null,
    pupil_id uuid not null,
    term_id uuid not null,
    constraint chapter_pupil_id_term_id_key unique (pupil_id, term_id),
    constraint chapter_pkey primary key (id)
  );
  create table class (
    id uuid not null,
    school_year_id uuid not null,
    name text not null,
    year_group text not null,
    idle_minutes integer not null,
    version integer not null,
    constraint class_pkey primary key (id)
  );
  create table consent (
    pupil_id uuid not null,
    kind text not null,
    granted boolean not null,
    said_by uuid not null,
    said_at timestamptz(3) not null,
    constraint consent_pkey primary key (pupil_id, kind)
  );
  create table decision (
    id uuid not null,
    piece_id uuid not null,
    version_id uuid not null,
    move text not null,
    message text not null,
    folder_id uuid,
    decided_by uuid not null,
    decided_at timestamptz(3) not null,
    constraint decision_version_id_key unique (version_id),
    constraint decision_pkey primary key (id)
  );
  create table enrolment (
    class_id uuid not null,
    person_id uuid not null,
    constraint enrolment_pkey primary key (class_id, person_id)
  );
  create table folder (
    id uuid not null,
    school_id uuid not null,
    class_id uuid,
    strand_id uuid,
    name text not null,
    symbol text not null,
    colour text not null,
    parents_see boolean not null,
    pupils_file boolean not null,
    position integer not null,
    put_away_at timestamptz(3),
    constraint folder_pkey primary key (id)
  );
  create table guardian (
    parent_id uuid not null,
    pupil_id uuid not null,
    constraint guardian_pkey primary key (parent_id, pupil_id)
  );
  create table invitation (
    id uuid not null,
    parent_id uuid not null,
    token_hash text not null,
    created_by uuid not null,
    created_at timestamptz(3) not null,
    expires_at timestamptz(3) not null,
    withdrawn_at timestamptz(3),
    last_used_at timestamptz(3),
    constraint invitation_token_hash_key unique (token_hash),
    constraint invitation_pkey primary key (id)
  );
  create table media (
    id uuid not null,
    owner_id uuid not null,
    name text not null,
    type text not null,
    size_bytes integer not null,
    width integer not null,
    height integer not null,
    sent_sha256 text not null,
    kept_sha256 text not null,
    state text not null,
    arrived_at timestamptz(3) not null,
    constraint media_pkey primary key (id)
  );
  create table name_card (
    id uuid not null,
    pupil_id uuid not null,
    code_hash text not null,
    created_at timestamptz(3) not null,
    revoked_at timestamptz(3),
    constraint name_card_code_hash_key unique (code_hash),
    constraint name_card_pkey primary key (id)
  );
  create table news (
    id uuid not null,
    person_id uuid not null,
    decision_id uuid not null,
    happened_at timestamptz(3) not null,
    seen_at timestamptz(3),
    constraint news_person_id_decision_id_key unique (person_id, decision_id),
    constraint news_pkey primary key (id)
  );
  create table page_link (
    id uuid not null,
    piece_id uuid not null,
    book_id uuid not null,
    token_hash text not null,
    created_at timestamptz(3) not null,
    expires_at timestamptz(3) not null,
    withdrawn_at timestamptz(3),
    constraint page_link_token_hash_key unique (token_hash),
    constraint page_link_book_id_piece_id_key unique (book_id, piece_id),
    constraint page_link_pkey primary key (id)
  );
  create table part (
    id uuid not null,
    piece_id uuid not null,
    kind text not null,
    name text not null,
    position integer not null,
    media_id uuid not null,
    removed_at timestamptz(3),
    constraint part_pkey primary key (id)
  );
  create table person (
    id uuid not null,
    school_id uuid not null,
    role text not null,
    first_name text not null,
    last_name text not null,
    email text,
    password_hash text,
    peg_symbol text,
    peg_colour text,
    created_at timestamptz(3) not null,
    last_seen_at timestamptz(3),
    constraint person_email_key unique (email),
    constraint person_pkey primary key (id)
  );
  create table pick (
    chapter_id uuid not null,
    piece_id uuid not null,
    position integer not null,
    reason text not null,
    picked_by uuid not null,
    picked_at timestamptz(3) not null,
    constraint pick_pkey primary key (chapter_id, piece_id)
  );
  create table piece_maker (
    piece_id uuid not null,
    person_id uuid not null,
    constraint piece_maker_pkey primary key (piece_id, person_id)
  );
  create table piece (
    id uuid not null,
    pupil_id uuid not null,
    class_id uuid not null,
    task_id uuid,
    folder_id uuid,
    term_id uuid,
    title text not null,
    reflection text not null,
    step text not null,
    state text not null,
    version integer not null,
    goes integer not null,
    created_at timestamptz(3) not null,
    changed_at timestamptz(3) not null,
    submitted_at timestamptz(3),
    approved_version_id uuid,
    approved_folder_id uuid,
    approved_at timestamptz(3),
    binned_at timestamptz(3),
    constraint piece_pkey primary key (id)
  );
  create table piece_version (
    id uuid not null,
    piece_id uuid not null,
    number integer not null,
    title text not null,
    reflection text not null,
    step text not null,
    folder_id uuid not null,
    submitted_by uuid not null,
    submitted_at timestamptz(3) not null,
    withdrawn_at timestamptz(3),
    constraint piece_version_piece_id_number_key unique (piece_id, number),
    constraint piece_version_pkey primary key (id)
  );
  create table school (
    id uuid not null,
    name text not null,
    time_zone text not null,
    created_at timestamptz(3) not null,
    constraint school_pkey primary key (id)
  );
  create table school_year (
    id uuid not null,
    school_id uuid not null,
    name text not null,
    starts_on date not null,
    ends_on date not null,
    constraint school_year_pkey primary key (id)
  );
  create table session (
    id uuid not null,
    token_hash text not null,
    person_id uuid not null,
    name_card_id uuid,
    invitation_id uuid,
    created_at timestamptz(3) not null,
    seen_at timestamptz(3) not null,
    expires_at timestamptz(3) not null,
    constraint session_token_hash_key unique (token_hash),
    constraint session_pkey primary key (id)
  );
  create table strand (
    id uuid not null,
    school_id uuid not null,
    name text not null,
    position integer not null,
    constraint strand_pkey primary key (id)
  );
  create table task (
    id uuid not null,
    class_id uuid not null,
    folder_id uuid not null,
    title text not null,
    instructions text not null,
    due_at timestamptz(3),
    folder_changeable boolean not null,
    created_at timestamptz(3) not null,
    closed_at timestamptz(3),
    constraint task_pkey primary key (id)
  );
  create table term (
    id uuid not null,
    school_year_id uuid not null,
    name text not null,
    starts_on date not null,
    ends_on date not null,
    constraint term_pkey primary key (id)
  );
  create table version_part (
    version_id uuid not null,
    part_id uuid not null,
    position integer not null,
    constraint version_part_pkey primary key (version_id, part_id)
  );
  -- Counts of wrong tries, kept by rate-limiter-flexible: shared by all server processes.
  create table sign_in_try (
    key varchar(255) not null,
    points integer not null default 0,
    expire bigint,
    constraint sign_in_try_pkey primary key (key)
  );
`

const INDEXES = `
  create index audit_happened_at_idx on audit (happened_at);
  create index decision_piece_id_decided_at_idx on decision (piece_id, decided_at);
  create index enrolment_person_id_idx on enrolment (person_id);
  create index folder_school_id_idx on folder (school_id);
  create index guardian_pupil_id_idx on guardian (pupil_id);
  create index invitation_parent_id_idx on invitation (parent_id);
  create index media_kept_sha256_idx on media (kept_sha256);
  create index media_owner_id_idx on media (owner_id);
  create index news_person_id_happened_at_idx on news (person_id, happened_at);
  create index part_piece_id_position_idx on part (piece_id, position);
  create index part_media_id_idx on part (media_id);
  create index pick_piece_id_idx on pick (piece_id);
  create index piece_maker_person_id_idx on piece_maker (person_id);
  create index piece_class_id_submitted_at_id_idx on piece (class_id, submitted_at, id) where ((state = 'submitted'::text) and (binned_at is null));
  create index piece_pupil_id_changed_at_idx on piece (pupil_id, changed_at);
  create index piece_approved_folder_id_approved_at_id_idx on piece (approved_folder_id, approved_at, id);
  create index piece_task_id_idx on piece (task_id);
  create index piece_class_id_state_idx on piece (class_id, state);
  create index session_person_id_idx on session (person_id);
  create index task_class_id_idx on task (class_id);
  create index version_part_part_id_idx on version_part (part_id);
`

/** After all tables, since a piece and its versions refer to each other. */
const REFERENCES = `
  alter table book
    add constraint book_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade,
    add constraint book_term_id_fkey foreign key (term_id) references term (id),
    add constraint book_requested_by_fkey foreign key (requested_by) references person (id);
  alter table chapter
    add constraint chapter_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade,
    add constraint chapter_term_id_fkey foreign key (term_id) references term (id);
  alter table class
    add constraint class_school_year_id_fkey foreign key (school_year_id) references school_year (id);
  alter table consent
    add constraint consent_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade,
    add constraint consent_said_by_fkey foreign key (said_by) references person (id);
  alter table decision
    add constraint decision_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    add constraint decision_version_id_fkey foreign key (version_id) references piece_version (id) on delete cascade,
    add constraint decision_folder_id_fkey foreign key (folder_id) references folder (id),
    add constraint decision_decided_by_fkey foreign key (decided_by) references person (id);
  alter table enrolment
    add constraint enrolment_class_id_fkey foreign key (class_id) references class (id) on delete cascade,
    add constraint enrolment_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table folder
    add constraint folder_school_id_fkey foreign key (school_id) references school (id),
    add constraint folder_class_id_fkey foreign key (class_id) references class (id),
    add constraint folder_strand_id_fkey foreign key (strand_id) references strand (id);
  alter table guardian
    add constraint guardian_parent_id_fkey foreign key (parent_id) references person (id) on delete cascade,
    add constraint guardian_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade;
  alter table invitation
    add constraint invitation_parent_id_fkey foreign key (parent_id) references person (id) on delete cascade,
    add constraint invitation_created_by_fkey foreign key (created_by) references person (id);
  alter table media
    add constraint media_owner_id_fkey foreign key (owner_id) references person (id);
  alter table name_card
    add constraint name_card_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade;
  alter table news
    add constraint news_person_id_fkey foreign key (person_id) references person (id) on delete cascade,
    add constraint news_decision_id_fkey foreign key (decision_id) references decision (id) on delete cascade;
  alter table page_link
    add constraint page_link_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    add constraint page_link_book_id_fkey foreign key (book_id) references book (id) on delete cascade;
  alter table part
    add constraint part_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    add constraint part_media_id_fkey foreign key (media_id) references media (id);
  alter table person
    add constraint person_school_id_fkey foreign key (school_id) references school (id);
  alter table pick
    add constraint pick_chapter_id_fkey foreign key (chapter_id) references chapter (id) on delete cascade,
    add constraint pick_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    add constraint pick_picked_by_fkey foreign key (picked_by) references person (id);
  alter table piece_maker
    add constraint piece_maker_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    add constraint piece_maker_person_id_fkey foreign key (person_id) references person (id);
  alter table piece
    add constraint piece_pupil_id_fkey foreign key (pupil_id) references person (id),
    add constraint piece_class_id_fkey foreign key (class_id) references class (id),
    add constraint piece_task_id_fkey foreign key (task_id) references task (id),
    add constraint piece_folder_id_fkey foreign key (folder_id) references folder (id),
    add constraint piece_term_id_fkey foreign key (term_id) references term (id),
    add constraint piece_approved_version_id_fkey foreign key (approved_version_id) references piece_version (id),
    add constraint piece_approved_folder_id_fkey foreign key (approved_folder_id) references folder (id);
  alter table piece_version
    add constraint piece_version_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    add constraint piece_version_folder_id_fkey foreign key (folder_id) references folder (id),
    add constraint piece_version_submitted_by_fkey foreign key (submitted_by) references person (id);
  alter table school_year
    add constraint school_year_school_id_fkey foreign key (school_id) references school (id);
  alter table session
    add constraint session_person_id_fkey foreign key (person_id) references person (id) on delete cascade,
    add constraint session_name_card_id_fkey foreign key (name_card_id) references name_card (id) on delete cascade,
    add constraint session_invitation_id_fkey foreign key (invitation_id) references invitation (id) on delete cascade;
  alter table strand
    add constraint strand_school_id_fkey foreign key (school_id) references school (id);
  alter table task
    add constraint task_class_id_fkey foreign key (class_id) references class (id),
    add constraint task_folder_id_fkey foreign key (folder_id) references folder (id);
  alter table term
    add constraint term_school_year_id_fkey foreign key (school_year_id) references school_year (id);
  alter table version_part
    add constraint version_part_version_id_fkey foreign key (version_id) references piece_version (id) on delete cascade,
    add constraint version_part_part_id_fkey foreign key (part_id) references part (id) on delete cascade;
`

/** Everything the first road needs. */
export class FirstRoad1700000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES)
    await runner.query(INDEXES)
    await runner.query(REFERENCES)
  }

  async down(): Promise<void> {
    throw new Error('the first migration is not undone: drop the database instead')
  }
}
