import type { Knex } from 'knex';

/** The kinds of measure as they were called, and as the trade calls them. */
const kinds = {
  items: 'itemCheck',
  count: 'frequency',
  intervals: 'intervalRecording',
  runningTotal: 'cumulativeTotal',
  steps: 'taskAnalysis',
  readingAloud: 'oralReading',
};

const renamed = (value: string) =>
  `case ${value} ${Object.entries(kinds)
    .map(([from, to]) => `when '${from}' then '${to}'`)
    .join(' ')} else ${value} end`;

const rights = (table: string) => `
  alter table ${table} drop constraint ${table}_rights_check;
  update ${table} set rights = array_replace(rights, 'setUp', 'editGoals') where 'setUp' = any(rights);
  alter table ${table} add constraint ${table}_rights_check check (rights <@ array['observe', 'editGoals', 'share']);`;

/** The kinds of measure and the right to edit goals get their own names; what was written down of them before stays as it was. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    update goal_measures set measure = jsonb_set(measure, '{kind}', to_jsonb(${renamed(`measure ->> 'kind'`)}));
    update goal_bank set goal = jsonb_set(goal, '{measure,kind}', to_jsonb(${renamed(`goal -> 'measure' ->> 'kind'`)}));
    ${rights('team_members')}
    ${rights('invitations')}
  `);
}
