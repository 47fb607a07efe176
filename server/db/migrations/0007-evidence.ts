import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- Photographs and files beside an entry. They are kept here and nowhere on the web: who asks is checked each time.
    create table evidence (
      id uuid primary key,
      student_id uuid not null references students,
      entry_id uuid not null,
      name text not null check (name <> ''),
      type text not null check (type in ('image/jpeg', 'application/pdf')),
      bytes int not null check (bytes > 0),
      content bytea not null,
      -- Of a picture; a file has none.
      thumbnail bytea,
      width int,
      height int,
      added_by uuid not null references people,
      added_at timestamptz not null,
      withdrawn_by uuid references people,
      withdrawn_at timestamptz,
      check ((type = 'image/jpeg') = (thumbnail is not null)),
      check ((withdrawn_by is null) = (withdrawn_at is null))
    );
    create index evidence_entry on evidence (student_id, entry_id);
    create trigger evidence_stays before delete on evidence for each row execute function refuse_removal();

    -- One piece of work that several people rate by a goal's rubric.
    create table rated_pieces (
      id uuid primary key,
      student_id uuid not null,
      goal_id uuid not null,
      goal_version int not null check (goal_version > 0),
      title text not null check (char_length(title) between 1 and 120),
      made_on date not null,
      made_by uuid not null references people,
      made_at timestamptz not null,
      -- The entry that was made of the ratings; none while it is open.
      entry_id uuid references observations,
      foreign key (goal_id, student_id) references goals (id, student_id)
    );
    create index rated_pieces_goal on rated_pieces (student_id, goal_id, made_on desc);
    -- A short-lived link by which a peer or the student rates one piece, once.
    create table rating_links (
      token_hash bytea primary key check (octet_length(token_hash) = 32),
      id uuid not null unique,
      piece_id uuid not null references rated_pieces,
      kind text not null check (kind in ('peer', 'student')),
      label text not null check (label <> ''),
      ends_at timestamptz not null,
      withdrawn_at timestamptz
    );
    create table piece_ratings (
      id uuid primary key,
      piece_id uuid not null references rated_pieces,
      person_id uuid references people,
      rating_link_id uuid unique references rating_links (id),
      points jsonb not null check (jsonb_typeof(points) = 'object'),
      words text not null check (char_length(words) <= 1000),
      rated_at timestamptz not null,
      check ((person_id is null) <> (rating_link_id is null)),
      unique (piece_id, person_id)
    );
    create trigger piece_ratings_stay before delete on piece_ratings for each row execute function refuse_removal();
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table piece_ratings, rating_links, rated_pieces, evidence');
}
