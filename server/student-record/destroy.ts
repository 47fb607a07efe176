import type { Knex } from 'knex';
import { z } from 'zod';
import { WAIT_DAYS } from '~/core/student-record/destruction';
import { type RecordTable, recordTableNames } from '~/core/student-record/tables';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { whose } from './whose';

const DAY = 24 * 3_600_000;
const theirs = 'student_id = :student';
const through = (column: string, table: string) => `${column} in (select id from ${table} where ${theirs})`;
const batches = `select batch_id from document_batch_parts where ${theirs}`;
const answers = 'select id from feedback_answers where giver_id = :student or presenter_id = :student';
const raters = `select id from stack_raters where ${theirs}`;

/** What hangs on a student besides the record, in the order in which it can go: each by its table. */
const besides: readonly [table: string, sql: string][] = [
  [
    'import_parts',
    `delete from import_parts where ${theirs} or ${through('row_id', 'goals')} or ${through('row_id', 'entries')}`,
  ],
  // A file that waits to come in has names in it: one that may name them goes.
  [
    'imports',
    `delete from imports i using students s
      where s.id = :student and i.school_id = s.school_id and i.done_at is null
        and strpos(lower(i.content::text), lower(s.first_name)) > 0 and strpos(lower(i.content::text), lower(s.last_name)) > 0`,
  ],
  ['awaited_members', `delete from awaited_members where ${theirs}`],
  ['record_arrivals', `delete from record_arrivals where ${theirs}`],
  [
    'document_batches',
    `with parts as (delete from document_batch_parts where batch_id in (${batches}))
     delete from document_batches where id in (${batches})`,
  ],
  ['message_stops', `delete from message_stops where ${through('message_id', 'messages')}`],
  ['message_entries', `delete from message_entries where ${theirs}`],
  ['messages', `delete from messages where ${theirs}`],
  ['entry_events', `delete from entry_events where ${theirs}`],
  ['rule_looks', `delete from rule_looks where ${theirs}`],
  ['invitation_tokens', `delete from invitation_tokens where ${through('invitation_id', 'invitations')}`],
  ['invitations', `delete from invitations where ${theirs}`],
  ['share_link_tokens', `delete from share_link_tokens where ${through('link_id', 'share_links')}`],
  ['share_link_passes', `delete from share_link_passes where ${through('link_id', 'share_links')}`],
  ['desk_sessions', `delete from desk_sessions where ${theirs}`],
  ['desk_turn_students', `delete from desk_turn_students where ${theirs}`],
  // What was said in a presentation stands in the notes of the one to whom it was said.
  ['feedback_said', `delete from feedback_said where answer_id in (${answers})`],
  ['feedback_answers', `delete from feedback_answers where id in (${answers})`],
  ['presentation_seats', `delete from presentation_seats where ${theirs}`],
  ['presentation_members', `delete from presentation_members where ${theirs}`],
  ['entries of others', `update entries set giver_id = null where giver_id = :student`],
  [
    'revisions of others',
    `update entry_revisions set row = row || '{"giver_id": null}' where row ->> 'giver_id' = cast(:student as text)`,
  ],
  // How they rated the work of classmates stays with the classmates, as a peer's.
  [
    'rating_links of others',
    `insert into rating_links (token_hash, id, work_sample_id, kind, label, ends_at, withdrawn_at)
     select sha256(convert_to(gen_random_uuid()::text, 'UTF8')), id, work_sample_id, 'peer', 'Peer', rated_at, rated_at
       from work_sample_ratings where stack_rater_id in (${raters})`,
  ],
  [
    'ratings of others',
    `update work_sample_ratings set rating_link_id = id, stack_rater_id = null where stack_rater_id in (${raters})`,
  ],
  [
    'stack_turns',
    `delete from stack_turns where rater_id in (${raters}) or ${through('work_sample_id', 'work_samples')}`,
  ],
  ['goal_decisions', `delete from goal_decisions where ${through('goal_id', 'goals')}`],
  ['round_goals', `delete from round_goals where ${theirs}`],
  ['student_forms', `delete from student_forms where ${theirs}`],
  ['student_groups', `delete from student_groups where ${theirs}`],
];

/** Tables of the record whose rows are also others', or are found another way once what hangs on them is gone. */
const otherwise: Partial<Record<RecordTable, string | null>> = {
  forms: null,
  form_versions: null,
  works: null,
  work_steps: null,
  evidence: theirs,
  rule_firings: theirs,
  rule_versions: through('rule_id', 'rules'),
  rules: theirs,
};

/** Who rated classmates goes after the ratings of their own work. */
const last: readonly [table: string, sql: string][] = [
  ['stack_raters', `delete from stack_raters where ${theirs}`],
  ['students', 'delete from students where id = :student'],
];

/**
 * Takes everything of a student out of the database. Only its owner can; call it in a transaction.
 *
 * @returns how many rows of each table are gone
 */
export async function destroyStudent(trx: Knex.Transaction, student: string): Promise<Record<string, number>> {
  await trx.raw(`select set_config('app.destroys', 'yes', true)`);
  const ofRecord = [...recordTableNames].reverse().flatMap((table): [string, string][] => {
    const where = otherwise[table] === undefined ? whose[table].where : otherwise[table];
    return where === null ? [] : [[table, `delete from ${table} where ${where}`]];
  });
  const counts: Record<string, number> = {};
  for (const [table, sql] of [...besides, ...ofRecord, ...last]) {
    const { rowCount } = await trx.raw<{ rowCount: number }>(sql, { student });
    if (rowCount > 0) counts[table] = rowCount;
  }
  await trx.raw(`select set_config('app.destroys', '', true)`);
  return counts;
}

const dueRow = z.object({ id: z.string(), studentId: z.string() });
const keptRow = z.object({ name: z.string(), grade: z.string(), years: z.string() });

/** What is kept of a student without limit (34 CFR 300.624(b)): the name, the grade, the years in which they were here. */
export async function keptOf(db: Database, student: string): Promise<z.infer<typeof keptRow> | null> {
  const found = await rowsOf(
    db,
    keptRow,
    `select s.first_name || ' ' || s.last_name as name, s.grade,
            case when y.first = y.last then y.first else y.first || '–' || y.last end as years
       from students s
            cross join lateral (select min(starts_on) as first, max(ends_on) as last from plans where ${theirs}) p
            cross join lateral (select min(from_date) as first from team_members where ${theirs}) m
            cross join lateral (
              select extract(year from coalesce(least(p.first, m.first), s.archived_at))::text as first,
                     extract(year from coalesce(s.archived_at, p.last, m.first))::text as last) y
      where s.id = :student`,
    { student },
  );
  return found[0] ?? null;
}

/**
 * Destroys what is confirmed, or was asked for a week ago, and is not asked for by a family; each in one transaction, as the owner.
 *
 * @param owner  the database, as its owner
 * @returns how many
 */
export async function destroyDue(owner: Database, now: Date): Promise<number> {
  const due = await rowsOf(
    owner,
    dueRow,
    `select id, student_id as "studentId" from destructions
      where done_at is null and taken_back_at is null and (confirmed_at is not null or asked_at <= :before)
            and not record_is_asked_for(student_id)
            and exists (select from students s where s.id = destructions.student_id and s.archived_at is not null)
      order by asked_at`,
    { before: new Date(now.getTime() - WAIT_DAYS * DAY) },
  );
  for (const { id, studentId } of due) {
    await owner.transaction(async (trx) => {
      const still = await trx('destructions').where({ id, done_at: null, taken_back_at: null }).forUpdate().first('id');
      const student = await trx('students').where({ id: studentId }).forUpdate().first('archived_at');
      const kept = await keptOf(trx, studentId);
      // Who came back meanwhile is not destroyed.
      if (!still || !student?.archived_at || !kept) return;
      const rows = await destroyStudent(trx, studentId);
      await trx('destructions')
        .where({ id })
        .update({
          ...{ done_at: now, kept_name: kept.name, kept_grade: kept.grade, kept_years: kept.years },
          rows: JSON.stringify(rows),
        });
    });
  }
  return due.length;
}
