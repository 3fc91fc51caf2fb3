import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = `
  create table version_maker (
    version_id uuid not null,
    person_id uuid not null,
    constraint version_maker_pkey primary key (version_id, person_id)
  );
  create table guardian_request (
    id uuid not null,
    parent_id uuid not null,
    pupil_id uuid not null,
    first_name text not null,
    last_name text not null,
    asked_by uuid not null,
    asked_at timestamptz(3) not null,
    constraint guardian_request_parent_id_pupil_id_key unique (parent_id, pupil_id),
    constraint guardian_request_pkey primary key (id)
  );
  create table upload (
    id text not null,
    owner_id uuid not null,
    media_id uuid not null,
    size_bytes integer not null,
    created_at timestamptz(3) not null,
    constraint upload_pkey primary key (id)
  );
`

const CHANGES = `
  -- As far as it is known: so far makers hung on the piece.
  insert into version_maker select v.id, m.person_id from piece_version v join piece_maker m on m.piece_id = v.piece_id;
  alter table book add column made_for text;
  update book set made_for = 'home';
  alter table book alter column made_for set not null;
  alter table audit add column details jsonb;
  alter table mail add column person_id uuid, add column secret text;
  update mail set person_id = p.id from person p where p.email = lower(mail.recipient);
  update mail set secret = coalesce(substring(body from 'https?://\\S+'), substring(body from '\\m[0-9]{6}\\M'));
  alter table news add column kind text, add column subject_id uuid, add column class_id uuid, add column by_id uuid;
  update news set kind = case d.move when 'approve' then 'approved' else 'returned' end from decision d where d.id = news.decision_id;
  alter table news alter column kind set not null, alter column decision_id drop not null;
`

/**
 * Each foreign key that a query follows from the other side, or that a row going away has to be
 * looked for by.
 */
const INDEXES = `
  drop index mail_created_at_idx;
  create index mail_created_at_id_idx on mail (created_at, id);
  create index audit_subject_id_idx on audit (subject_id);
  create index book_term_id_idx on book (term_id);
  create index card_sheet_class_id_idx on card_sheet (class_id);
  create index card_sheet_pupil_id_idx on card_sheet (pupil_id);
  create index chapter_term_id_idx on chapter (term_id);
  create index class_school_year_id_idx on class (school_year_id);
  create index door_card_class_id_idx on door_card (class_id);
  create index guardian_request_pupil_id_idx on guardian_request (pupil_id);
  create index mail_person_id_idx on mail (person_id);
  create index name_card_pupil_id_idx on name_card (pupil_id);
  create index news_decision_id_idx on news (decision_id);
  create index news_subject_id_idx on news (subject_id);
  create index notice_seen_person_id_idx on notice_seen (person_id);
  create index page_link_piece_id_idx on page_link (piece_id);
  create index password_link_person_id_idx on password_link (person_id);
  create index piece_approved_version_id_idx on piece (approved_version_id);
  create index piece_folder_id_idx on piece (folder_id);
  create index piece_term_id_idx on piece (term_id);
  create index session_invitation_id_idx on session (invitation_id);
  create index session_name_card_id_idx on session (name_card_id);
  create index task_folder_id_idx on task (folder_id);
  create index task_pupil_person_id_idx on task_pupil (person_id);
  create index task_tick_person_id_idx on task_tick (person_id);
  create index term_school_year_id_idx on term (school_year_id);
  create index upload_owner_id_idx on upload (owner_id);
  create index version_maker_person_id_idx on version_maker (person_id);
`

const REFERENCES = `
  alter table version_maker
    add constraint version_maker_version_id_fkey foreign key (version_id) references piece_version (id) on delete cascade,
    add constraint version_maker_person_id_fkey foreign key (person_id) references person (id);
  alter table guardian_request
    add constraint guardian_request_parent_id_fkey foreign key (parent_id) references person (id) on delete cascade,
    add constraint guardian_request_pupil_id_fkey foreign key (pupil_id) references person (id) on delete cascade,
    add constraint guardian_request_asked_by_fkey foreign key (asked_by) references person (id);
  alter table upload add constraint upload_owner_id_fkey foreign key (owner_id) references person (id) on delete cascade;
  alter table mail add constraint mail_person_id_fkey foreign key (person_id) references person (id) on delete cascade;
  alter table news
    add constraint news_subject_id_fkey foreign key (subject_id) references person (id) on delete cascade,
    add constraint news_class_id_fkey foreign key (class_id) references class (id) on delete cascade,
    add constraint news_by_id_fkey foreign key (by_id) references person (id);
`

/**
 * Makers of versions, books for home and for school, requests to parents, letters that are opened,
 * news for teachers, uploads that are counted.
 */
export class SafeGround1700000000005 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES)
    await runner.query(CHANGES)
    await runner.query(INDEXES)
    await runner.query(REFERENCES)
  }

  async down(): Promise<void> {
    throw new Error(
      'there is no way back to before the makers of versions; restore a copy of the database',
    )
  }
}
