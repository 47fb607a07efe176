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

/** In what was written down of changes too: what a family could see in October is read from there. */
const inChanges = (from: string, to: string) =>
  ['before', 'after']
    .map(
      (state) => `
  update changes set ${state} = replace(${state}::text, '"${from}"', '"${to}"')::jsonb where ${state}::text like '%"${from}"%';`,
    )
    .join('');

/** The kinds of measure, the right to edit goals and locations get their own names. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    update goal_measures set measure = jsonb_set(measure, '{kind}', to_jsonb(${renamed(`measure ->> 'kind'`)}));
    update goal_bank set goal = jsonb_set(goal, '{measure,kind}', to_jsonb(${renamed(`goal -> 'measure' ->> 'kind'`)}));
    ${rights('team_members')}
    ${rights('invitations')}

    update visibility_rules set fields = array_replace(fields, 'setting', 'location') where 'setting' = any(fields);
    alter table behavior_fields drop constraint behavior_fields_left_out_check;
    update behavior_fields set left_out = array_replace(left_out, 'setting', 'location') where 'setting' = any(left_out);
    alter table behavior_fields add constraint behavior_fields_left_out_check
      check (left_out <@ array['location', 'intensity', 'function', 'duration', 'resolved']);
    create or replace view behavior_choices with (security_invoker) as
      select id, school_id, student_id, 'behavior' as kind, name, definition as words, not_counted as unlike, direction,
             by_abc as abc, by_count as counted, by_time as timed, position, state, merged_into, null::uuid as location_id
        from behavior_targets
      union all
      select id, school_id, student_id, facet, label, description, '', 'decrease',
             true, false, false, position, state, merged_into, location_id
        from behavior_options;

    alter table changes disable trigger user;
    ${inChanges('setUp', 'editGoals')}
    ${inChanges('setting', 'location')}
    ${inChanges('places', 'locations')}
    alter table changes enable trigger user;
  `);
}
