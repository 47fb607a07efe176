import type { Knex } from 'knex';

/** What one time is called becomes a goal's “opportunity”, and a session that was “declined” one that was “refused”. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    update goal_measures set measure = measure - 'chance' || jsonb_build_object('opportunity', measure -> 'chance')
     where jsonb_exists(measure, 'chance');
    update goal_bank
       set goal = jsonb_set(goal #- '{measure,chance}', '{measure,opportunity}', goal #> '{measure,chance}')
     where jsonb_exists(goal -> 'measure', 'chance');

    alter table entries drop constraint entries_reason_check;
    alter table entries disable trigger user;
    update entries set reason = 'refused' where reason = 'declined';
    alter table entries enable trigger user;
    alter table entries add constraint entries_reason_check check (reason in ('absent', 'refused', 'noOpportunity'));
    alter table entry_revisions disable trigger user;
    update entry_revisions set row = jsonb_set(row, '{reason}', '"refused"') where row ->> 'reason' = 'declined';
    alter table entry_revisions enable trigger user;
  `);
}
