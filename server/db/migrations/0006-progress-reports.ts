import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- The teacher's own words for a period's report, until it is issued.
    create table report_drafts (
      student_id uuid not null references students,
      period_to date not null,
      words jsonb not null check (jsonb_typeof(words) = 'object'),
      version int not null check (version > 0),
      changed_by uuid not null references people,
      changed_at timestamptz not null,
      primary key (student_id, period_to)
    );

    -- A progress report as it was issued: never changed, only replaced by another.
    create table issued_reports (
      id uuid primary key,
      student_id uuid not null references students,
      number int not null check (number > 0),
      period_label text not null,
      period_from date not null,
      period_to date not null check (period_to >= period_from),
      content jsonb not null check (jsonb_typeof(content) = 'object'),
      -- Which entries it was made from, each with the version that stood then.
      made_from jsonb not null check (jsonb_typeof(made_from) = 'object'),
      readers text[] not null check (readers <@ array['family', 'student', 'specialist']),
      issued_by uuid not null references people,
      issued_at timestamptz not null,
      replaces uuid unique references issued_reports check (replaces <> id),
      unique (student_id, number)
    );
    create index issued_reports_student on issued_reports (student_id, period_to);
    create trigger issued_reports_stay before delete or update on issued_reports
      for each row execute function refuse_removal();

    -- The papers of several students in one file, made in the background.
    create table batches (
      id uuid primary key,
      label text not null check (label <> ''),
      what text not null check (what in ('progress', 'running')),
      period_to date,
      made_by uuid not null references people,
      made_at timestamptz not null,
      state text not null default 'waiting' check (state in ('waiting', 'making', 'ready', 'failed')),
      problem text,
      file bytea,
      check ((state = 'ready') = (file is not null))
    );
    create index batches_made_by on batches (made_by, made_at desc);
    create table batch_parts (
      batch_id uuid not null references batches,
      student_id uuid not null references students,
      position int not null,
      pages int,
      pdf bytea,
      primary key (batch_id, student_id)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table batch_parts, batches, issued_reports, report_drafts');
}
