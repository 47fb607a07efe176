import type { RecordTable } from '~/core/student-record/tables';

/** Where the rows of a table of the record stand in the database, and in which order they leave. */
interface Whose {
  /** Of `:student`. */
  where: string;
  /** The columns to sort by: the same rows leave in the same order. */
  order: string;
  /** What is read in place of the table, and of a column. */
  from?: string;
  columns?: Record<string, string>;
  /** What is written beside the columns of the record. */
  owner: readonly ('student_id' | 'school_id')[];
}

const theirs = 'student_id = :student';
const through = (column: string, table: string) => `${column} in (select id from ${table} where ${theirs})`;
const noOwner = [] as const;
const student = ['student_id'] as const;
const both = ['student_id', 'school_id'] as const;

/** A follow-up that came of a rule needs what fulfilled it, and the rule as it stood. */
const fired = `select firing_id from follow_ups where ${theirs} and firing_id is not null`;
/** A student's work rated at their desk or by a classmate counts as one that was rated by a link: who the classmate is stays here. */
const ratingLinks = `(
  select id, work_sample_id, kind, label, ends_at, withdrawn_at from rating_links
  union all
  select g.id, g.work_sample_id, case when g.card_id is null then 'peer' else 'student' end,
         case when g.card_id is null then 'Peer' else 'Student' end, g.rated_at, g.rated_at
    from work_sample_ratings g left join stack_raters r on r.id = g.stack_rater_id
   where g.card_id is not null or r.student_id is not null) as links`;

export const whose: Record<RecordTable, Whose> = {
  plans: { where: theirs, order: 'starts_on', owner: student },
  reporting_periods: { where: through('plan_id', 'plans'), order: 'ends_on, id', owner: noOwner },
  team_members: { where: theirs, order: 'from_date, id', owner: student },
  timetable_blocks: { where: theirs, order: 'weekday, starts_at, id', owner: both },
  absences: { where: theirs, order: 'day, recorded_at, id', owner: student },

  goals: { where: theirs, order: 'position, starts_on, id', owner: student },
  goal_measures: { where: through('goal_id', 'goals'), order: 'goal_id, version', owner: noOwner },
  goal_phases: { where: through('goal_id', 'goals'), order: 'goal_id, starts_on', owner: noOwner },
  goal_observers: { where: through('goal_id', 'goals'), order: 'goal_id, person_id', owner: noOwner },
  goal_locations: { where: through('goal_id', 'goals'), order: 'goal_id, location_id', owner: noOwner },
  goal_revisions: { where: through('goal_id', 'goals'), order: 'id', owner: noOwner },
  desk_goals: { where: theirs, order: 'goal_id', owner: student },

  behavior_targets: { where: theirs, order: 'position, id', owner: both },
  behavior_options: { where: theirs, order: 'facet, position, id', owner: both },
  behavior_revisions: {
    where: `${through('target_id', 'behavior_targets')} or ${through('option_id', 'behavior_options')}`,
    order: 'id',
    owner: noOwner,
  },
  behavior_fields: { where: theirs, order: 'student_id', owner: student },
  behavior_phases: { where: theirs, order: 'starts_on, id', owner: student },

  forms: {
    where: `id in (select form_id from entries where ${theirs})`,
    order: 'made_at, id',
    owner: ['school_id'],
  },
  form_versions: {
    where: `(form_id, version) in (select form_id, form_version from entries where ${theirs})`,
    order: 'form_id, version',
    owner: noOwner,
  },

  entries: { where: theirs, order: 'observed_on, observed_time, recorded_at, id', owner: student },
  incident_choices: { where: theirs, order: 'entry_id, version, facet, position', owner: student },
  entry_revisions: { where: theirs, order: 'entry_id, version', owner: student },
  kept_names: { where: theirs, order: 'entry_id, version', owner: student },
  // What was taken away may have been another child's.
  evidence: {
    ...{ where: `${theirs} and withdrawn_at is null`, order: 'added_at, id', columns: { file: "''" } },
    owner: student,
  },

  work_samples: { where: theirs, order: 'made_on, id', owner: student },
  work_sample_files: {
    where: through('work_sample_id', 'work_samples'),
    order: 'work_sample_id',
    columns: { file: "''" },
    owner: noOwner,
  },
  rating_links: {
    ...{ where: through('work_sample_id', 'work_samples'), order: 'work_sample_id, id' },
    from: ratingLinks,
    owner: noOwner,
  },
  work_sample_ratings: {
    ...{ where: through('work_sample_id', 'work_samples'), order: 'work_sample_id, rated_at, id' },
    from: `(select g.id, g.work_sample_id, coalesce(g.person_id, r.person_id) as person_id,
                   case when g.card_id is not null or r.student_id is not null then g.id else g.rating_link_id end as rating_link_id,
                   g.points, g.words, g.rated_at
              from work_sample_ratings g left join stack_raters r on r.id = g.stack_rater_id) as ratings`,
    owner: noOwner,
  },
  rating_revisions: {
    where: `rating_id in (select g.id from work_sample_ratings g join work_samples w on w.id = g.work_sample_id where w.${theirs})`,
    order: 'rating_id, seq',
    owner: noOwner,
  },

  visibility_rules: { where: theirs, order: 'kind', owner: both },
  share_links: { where: theirs, order: 'created_at, id', owner: student },
  access_log: { where: theirs, order: 'id', owner: student },
  progress_report_drafts: { where: theirs, order: 'period_id', owner: student },
  issued_reports: { where: theirs, order: 'number', owner: student },
  issued_report_entries: { where: theirs, order: 'report_id, entry_id', owner: student },
  comments: { where: theirs, order: 'seq', owner: student },
  changes: { where: theirs, order: 'id', owner: both },

  rules: {
    where: `id in (select rule_id from rule_firings where id in (${fired}))`,
    order: 'made_at, id',
    owner: both,
  },
  rule_versions: {
    where: `(rule_id, version) in (select rule_id, version from rule_firings where id in (${fired}))`,
    order: 'rule_id, version',
    owner: noOwner,
  },
  rule_firings: { where: `id in (${fired})`, order: 'at, id', owner: student },
  follow_ups: { where: theirs, order: 'made_at, id', owner: student },
  follow_up_changes: { where: theirs, order: 'follow_up_id, version', owner: student },

  record_requests: { where: theirs, order: 'asked_on, id', owner: student },
  cards: { where: theirs, order: 'made_at, id', owner: student },
  works: {
    where: `id in (select work_id from student_works where ${theirs})`,
    order: 'made_at, id',
    owner: ['school_id'],
  },
  work_steps: {
    where: `work_id in (select work_id from student_works where ${theirs})`,
    order: 'work_id, position, id',
    owner: noOwner,
  },
  student_works: { where: theirs, order: 'given_at, work_id', owner: student },
  work_states: { where: theirs, order: 'at, id', owner: student },
  work_state_seen: { where: theirs, order: 'state_id', owner: student },
};
