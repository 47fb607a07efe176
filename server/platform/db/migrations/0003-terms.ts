import type { Knex } from 'knex';

/** Whether an entry’s data has ratings of peers or of the student: entries name raters by their kind only. */
const hasRaters = (data: string) => `${data}::text ~ '"rater": "(Peer|Student)( |")'`;

/** The ratings with what peers and the student gave marked: it stands beside, and makes no figure. */
const beside = (data: string) => `(
  select jsonb_agg(case when one ->> 'rater' ~ '^(Peer|Student)( |$)' then one || '{"isBeside": true}' else one end order by at)
    from jsonb_array_elements(${data} -> 'ratings') with ordinality as of_entry (one, at))`;

/**
 * What one time is called becomes a goal's “opportunity”, a session that was “declined” one that was “refused”, and the line of an issued
 * graph its “aim line”. A goal about how soon says after how many seconds a cue counts as unanswered. What
 * peers and students rated stands beside the score.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    update goal_measures set measure = measure - 'chance' || jsonb_build_object('opportunity', measure -> 'chance')
     where jsonb_exists(measure, 'chance');
    update goal_bank
       set goal = jsonb_set(goal #- '{measure,chance}', '{measure,opportunity}', goal #> '{measure,chance}')
     where jsonb_exists(goal -> 'measure', 'chance');
    update goal_measures set measure = measure || '{"limitSeconds": 30}'
     where measure ->> 'kind' = 'latency' and not jsonb_exists(measure, 'limitSeconds');
    update goal_bank set goal = jsonb_set(goal, '{measure,limitSeconds}', '30')
     where goal -> 'measure' ->> 'kind' = 'latency' and not jsonb_exists(goal -> 'measure', 'limitSeconds');

    alter table goal_revisions disable trigger user;
    update goal_revisions set row = replace(row::text, '"chance":', '"opportunity":')::jsonb;
    alter table goal_revisions enable trigger user;

    alter table entries drop constraint entries_reason_check;
    alter table entries disable trigger user;
    update entries set reason = 'refused' where reason = 'declined';
    update entries set data = jsonb_set(data, '{ratings}', ${beside('data')}) where ${hasRaters('data')};
    alter table entries enable trigger user;
    alter table entries add constraint entries_reason_check check (reason in ('absent', 'refused', 'noOpportunity'));
    alter table entry_revisions disable trigger user;
    update entry_revisions set row = jsonb_set(row, '{reason}', '"refused"') where row ->> 'reason' = 'declined';
    alter table entry_revisions enable trigger user;

    alter table issued_reports disable trigger user;
    update issued_reports set content = replace(content::text, '"course":', '"aimLine":')::jsonb;
    alter table issued_reports enable trigger user;
  `);
}
