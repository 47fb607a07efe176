import type { Knex } from 'knex';

/**
 * What documents are printed on, and what goes into those of several students: a part is kept as what stands in it, not as pages, since
 * pages are set anew when somebody is left out. And what a family states or asks to have amended, which stays with an entry or a report.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table schools add column paper text not null default 'letter' check (paper in ('letter', 'a4'));

    alter table document_batches
      add column is_short boolean not null default false,
      -- Areas of goals; null for all goals and behavior.
      add column areas text[] check (cardinality(areas) > 0),
      -- A file for each student, in a ZIP.
      add column is_packed boolean not null default false;
    -- Its pages (pdf) are kept where it is a file of its own.
    alter table document_batch_parts add column document jsonb check (jsonb_typeof(document) = 'object');
    update document_batch_parts set pdf = null where pdf is not null;
    update document_batches set state = 'over' where state = 'ready';
    update document_batch_parts p set pages = null from document_batches b
      where b.id = p.batch_id and b.state in ('waiting', 'making') and p.left_out is null;

    alter table comments
      add column report_id uuid,
      -- What was decided on what a family asked to have amended.
      add column outcome text check (outcome in ('amended', 'refused')),
      add foreign key (report_id, student_id) references issued_reports (id, student_id),
      drop constraint comments_kind_check,
      add constraint comments_kind_check check (kind in ('comment', 'reflection', 'statement', 'amendment', 'decision')),
      drop constraint comments_check2,
      add constraint comments_of_something check (num_nonnulls(entry_id, report_id) = 1 or (kind = 'reflection' and entry_id is null and report_id is null)),
      add constraint comments_of_report check (report_id is null or kind in ('statement', 'amendment', 'decision')),
      add constraint comments_decided check ((kind = 'decision') = (outcome is not null)),
      -- What a family states stays in sight wherever it stands, and so does its answer.
      add constraint comments_in_sight check (hidden_at is null or kind in ('comment', 'reflection'));
    create unique index comments_decided_once on comments (answers) where kind = 'decision';
    create index comments_of_report on comments (report_id) where report_id is not null;

    alter table follow_ups
      -- What a family asked for, of which it follows.
      add column comment_id uuid unique references comments,
      drop constraint follow_ups_check,
      add constraint follow_ups_made_by_check check ((made_by is null) = (num_nonnulls(firing_id, comment_id) = 1));
  `);
}
