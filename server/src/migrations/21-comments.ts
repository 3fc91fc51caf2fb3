import { FIRST_HELD_WORDS } from '@nibquill/core'
import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = `
  -- What the school wants a closer look at in comments.
  alter table school add column held_words jsonb not null default '[]';
  alter table school alter column held_words drop default;
  -- What is said under a piece. Nothing of it is ever deleted but with its piece.
  create table comment (
    id uuid not null,
    piece_id uuid not null,
    by_id uuid not null,
    words text not null,
    voice_media_id uuid,
    answers_id uuid,
    state text not null,
    hidden_why text not null,
    said_at timestamptz(3) not null,
    decided_by uuid,
    decided_at timestamptz(3),
    constraint comment_pkey primary key (id),
    constraint comment_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    constraint comment_by_id_fkey foreign key (by_id) references person (id),
    constraint comment_voice_media_id_fkey foreign key (voice_media_id) references media (id),
    constraint comment_answers_id_fkey foreign key (answers_id) references comment (id) on delete cascade,
    constraint comment_decided_by_fkey foreign key (decided_by) references person (id)
  );
  create index comment_piece_id_said_at_idx on comment (piece_id, said_at);
  create index comment_voice_media_id_idx on comment (voice_media_id);
  create index comment_answers_id_idx on comment (answers_id);
  create index comment_by_id_idx on comment (by_id) where state = 'waiting';
  create index comment_said_at_idx on comment (said_at) where state = 'waiting';
  -- What a pupil and one teacher say to each other on a piece.
  create table private_word (
    id uuid not null,
    piece_id uuid not null,
    pupil_id uuid not null,
    teacher_id uuid not null,
    by_id uuid not null,
    words text not null,
    voice_media_id uuid,
    said_at timestamptz(3) not null,
    constraint private_word_pkey primary key (id),
    constraint private_word_piece_id_fkey foreign key (piece_id) references piece (id) on delete cascade,
    constraint private_word_pupil_id_fkey foreign key (pupil_id) references person (id),
    constraint private_word_teacher_id_fkey foreign key (teacher_id) references person (id),
    constraint private_word_by_id_fkey foreign key (by_id) references person (id),
    constraint private_word_voice_media_id_fkey foreign key (voice_media_id) references media (id)
  );
  create index private_word_piece_id_said_at_idx on private_word (piece_id, said_at);
  create index private_word_pupil_id_idx on private_word (pupil_id);
  create index private_word_teacher_id_idx on private_word (teacher_id);
  create index private_word_voice_media_id_idx on private_word (voice_media_id);
  -- News of them.
  alter table news add column comment_id uuid;
  alter table news add column private_word_id uuid;
  alter table news add constraint news_comment_id_fkey foreign key (comment_id) references comment (id) on delete cascade;
  alter table news add constraint news_private_word_id_fkey foreign key (private_word_id) references private_word (id) on delete cascade;
  alter table news add constraint news_person_id_comment_id_key unique (person_id, comment_id);
  create index news_comment_id_idx on news (comment_id);
  create index news_private_word_id_idx on news (private_word_id);
`

export class Comments1700000000021 implements MigrationInterface {
  async up(queries: QueryRunner): Promise<void> {
    await queries.query(CHANGES)
    await queries.query('update school set held_words = $1', [JSON.stringify(FIRST_HELD_WORDS)])
  }

  async down(queries: QueryRunner): Promise<void> {
    await queries.query(`delete from news where comment_id is not null or private_word_id is not null;
      alter table news drop column comment_id, drop column private_word_id;
      drop table private_word; drop table comment; alter table school drop column held_words`)
  }
}
