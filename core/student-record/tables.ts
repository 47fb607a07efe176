import { z } from 'zod';
import { fidelityMarks } from '../entries/fidelity';
import { answersSchema, formSides, questionsSchema } from '../entries/forms/form';
import { measureDefinition } from '../measures/measure';
import { named } from '../measures/named';
import { noScoreReasons } from '../measures/score';
import { progressReport } from '../progress-report/content-schema';
import { draftWords } from '../progress-report/input';
import { rule } from '../rules/rule';
import { changeKinds } from '../sharing/change';
import { outsideKinds, readerKinds } from '../sharing/reader-kind';
import { groupings, layouts, reportFields } from '../sharing/visibility-rule';
import { roles } from '../students/roles';
import {
  day,
  free,
  freeJson,
  id,
  instant,
  json,
  location,
  number,
  person,
  ref,
  text,
  texts,
  time,
  whole,
  yesNo,
} from './columns';

/**
 * The tables of a student's record, version 1, each with its columns as they are called here and in the database. They stand in the order
 * in which they can be written. Whose they are is not in them: all are of the one student. What a table of the database holds besides is
 * listed in `leftOut`.
 */
export const recordTables = {
  plans: z.object({ id, starts_on: day, ends_on: day, label: text }),
  reporting_periods: z.object({ id, plan_id: ref('plans'), label: text, ends_on: day, removed_at: instant.nullable() }),
  team_members: z.object({
    ...{ id, person_id: person, role: z.enum(roles), rights: texts.nullable(), from_date: day },
    ...{ until_date: day.nullable(), changed_by: person.nullable(), changed_at: instant.nullable() },
  }),
  timetable_blocks: z.object({
    ...{ id, weekday: whole, part: text, starts_at: time, ends_at: time, location_id: location.nullable() },
  }),
  absences: z.object({
    ...{ id, day, part: text.nullable(), recorded_by: person, recorded_at: instant },
    ...{ withdrawn_by: person.nullable(), withdrawn_at: instant.nullable() },
  }),

  goals: z.object({
    ...{ id, plan_id: ref('plans').nullable(), continues: ref('goals').nullable(), number: text, area: text },
    ...{
      short_name: text,
      wording: free,
      position: whole,
      measure_version: whole,
      point_per: z.enum(['day', 'session']),
    },
    ...{
      baseline_value: number.nullable(),
      baseline_on: day.nullable(),
      target: number,
      target_on: day,
      starts_on: day,
    },
    ...{ planned_gap: whole.nullable(), comparison: z.enum(['atLeast', 'atMost']), criterion_value: number },
    ...{ rule: z.enum(['ofLast', 'inARow']), rule_k: whole, rule_n: whole, minimum_opportunities: whole },
    ...{
      distinct_locations: whole,
      distinct_observers: whole,
      edited_at: instant.nullable(),
      retired_on: day.nullable(),
    },
    ...{ retired_how: z.enum(['met', 'discontinued', 'replaced']).nullable(), replaced_by: ref('goals').nullable() },
    retired_note: free,
  }),
  goal_measures: z.object({ goal_id: ref('goals'), version: whole, measure: measureDefinition, from_date: day }),
  goal_phases: z.object({
    goal_id: ref('goals'),
    label: text,
    starts_on: day,
    is_baseline: yesNo,
    steps: z.array(named),
  }),
  goal_observers: z.object({ goal_id: ref('goals'), person_id: person }),
  goal_locations: z.object({ goal_id: ref('goals'), location_id: location }),
  goal_revisions: z.object({ goal_id: ref('goals'), row: freeJson, changed_by: person, changed_at: instant }),
  desk_goals: z.object({
    ...{ goal_id: ref('goals'), shows: z.enum(['nothing', 'progress', 'log']), plain: text, self_counts: yesNo },
  }),

  behavior_targets: z.object({
    ...{ id, name: text, definition: free, not_counted: free, direction: z.enum(['decrease', 'increase']) },
    ...{
      by_abc: yesNo,
      by_count: yesNo,
      by_time: yesNo,
      position: whole,
      state: z.enum(['offered', 'other', 'retired']),
    },
    ...{ merged_into: ref('behavior_targets').nullable(), discreet_word: text },
  }),
  behavior_options: z.object({
    ...{ id, facet: z.enum(['antecedent', 'consequence', 'location', 'intensity', 'function']), label: text },
    ...{ description: free, position: whole, state: z.enum(['offered', 'other', 'retired']) },
    ...{ merged_into: ref('behavior_options').nullable(), location_id: location.nullable(), discreet_word: text },
  }),
  behavior_revisions: z.object({
    ...{ target_id: ref('behavior_targets').nullable(), option_id: ref('behavior_options').nullable(), row: freeJson },
    ...{ changed_by: person, changed_at: instant },
  }),
  behavior_fields: z.object({ left_out: texts }),
  behavior_phases: z.object({
    ...{ id, target_id: ref('behavior_targets').nullable(), label: text, starts_on: day, made_by: person },
    removed_at: instant.nullable(),
  }),

  forms: z.object({ id, side: z.enum(formSides), made_by: person, made_at: instant, closed_at: instant.nullable() }),
  form_versions: z.object({
    ...{ form_id: ref('forms'), version: whole, title: text, hint: text, questions: questionsSchema },
    ...{ made_by: person, made_at: instant },
  }),

  entries: z.object({
    ...{ id, kind: z.enum(['goal', 'incident', 'count', 'note']), observed_on: day, observed_time: time },
    ...{ observer_id: person, beside_id: person.nullable(), recorded_by: person, recorded_at: instant },
    ...{ self_recorded: yesNo, location_id: location.nullable(), note: free, version: whole },
    ...{
      changed_by: person.nullable(),
      changed_at: instant.nullable(),
      change_reason: free.nullable(),
      withdrawn: yesNo,
    },
    ...{ goal_id: ref('goals').nullable(), measure_version: whole.nullable(), data: json.nullable() },
    ...{
      reason: z.enum(noScoreReasons).nullable(),
      pairs_with: ref('entries').nullable(),
      paired_by: person.nullable(),
    },
    ...{ paired_at: instant.nullable(), seconds: number.nullable(), is_going: yesNo, resolved: yesNo.nullable() },
    ...{ resolved_after: number.nullable(), target_id: ref('behavior_targets').nullable(), part: text.nullable() },
    ...{ minutes: number.nullable(), count: whole.nullable(), fidelity: fidelityMarks.nullable() },
    ...{ form_id: ref('forms').nullable(), form_version: whole.nullable() },
    answers: answersSchema.meta({ isFree: true }).nullable(),
  }),
  incident_choices: z.object({
    ...{ entry_id: ref('entries'), version: whole, facet: text, position: whole },
    ...{ target_id: ref('behavior_targets').nullable(), option_id: ref('behavior_options').nullable() },
  }),
  entry_revisions: z.object({
    ...{
      entry_id: ref('entries'),
      version: whole,
      row: freeJson,
      changed_by: person,
      changed_at: instant,
      reason: free,
    },
  }),
  kept_names: z.object({ entry_id: ref('entries'), version: whole, kept_by: person, kept_at: instant }),
  evidence: z.object({
    ...{ id, entry_id: ref('entries'), name: free, type: z.enum(['image/jpeg', 'application/pdf']), file: text },
    ...{ added_by: person, added_at: instant, withdrawn_by: person.nullable(), withdrawn_at: instant.nullable() },
  }),

  record_requests: z.object({
    ...{ id, asked_by: text, asked_on: day, noted_by: person, noted_at: instant },
    ...{ answered_by: person.nullable(), answered_at: instant.nullable() },
  }),

  cards: z.object({ id, made_by: person, made_at: instant, ended_at: instant.nullable() }),
  work_samples: z.object({
    ...{
      id,
      goal_id: ref('goals'),
      measure_version: whole,
      title: free,
      made_on: day,
      made_by: person,
      made_at: instant,
    },
    ...{ entry_id: ref('entries').nullable(), work_text: free.nullable() },
  }),
  work_sample_files: z.object({
    ...{ work_sample_id: ref('work_samples'), type: z.enum(['image/jpeg', 'application/pdf']), file: text },
    ...{ added_by: person, added_at: instant },
  }),
  rating_links: z.object({
    ...{ id, work_sample_id: ref('work_samples'), kind: z.enum(['peer', 'student']), label: text, ends_at: instant },
    withdrawn_at: instant.nullable(),
  }),
  work_sample_ratings: z.object({
    ...{ id, work_sample_id: ref('work_samples'), person_id: person.nullable() },
    ...{
      rating_link_id: ref('rating_links').nullable(),
      points: z.record(z.string(), z.number()),
      words: free,
      rated_at: instant,
    },
  }),
  rating_revisions: z.object({
    rating_id: ref('work_sample_ratings'),
    points: z.record(z.string(), z.number()),
    words: free,
    rated_at: instant,
  }),

  visibility_rules: z.object({
    ...{ kind: z.enum(readerKinds), fields: z.array(z.enum(reportFields)), layout: z.enum(layouts) },
    ...{ grouping: z.enum(groupings), oldest_first: yesNo, changed_by: person, changed_at: instant },
  }),
  share_links: z.object({
    ...{ id, reader_name: text, kind: z.enum(outsideKinds), purpose: text, ends_on: day, created_by: person },
    ...{ created_at: instant, withdrawn_by: person.nullable(), withdrawn_at: instant.nullable() },
  }),
  access_log: z.object({
    ...{ person_id: person.nullable(), link_id: ref('share_links').nullable(), what: text },
    ...{ how: z.enum(['opened', 'exported', 'sent', 'issued', 'kept']), at: instant, day },
  }),
  progress_report_drafts: z.object({
    ...{
      period_id: ref('reporting_periods'),
      words: draftWords.meta({ isFree: true }),
      version: whole,
      changed_by: person,
      changed_at: instant,
    },
  }),
  issued_reports: z.object({
    ...{ id, number: whole, period_id: ref('reporting_periods'), period_label: text, period_from: day, period_to: day },
    ...{
      content: progressReport.meta({ isFree: true }),
      readers: z.array(z.enum(outsideKinds)),
      issued_by: person,
      issued_at: instant,
    },
    replaces: ref('issued_reports').nullable(),
  }),
  issued_report_entries: z.object({ report_id: ref('issued_reports'), entry_id: ref('entries'), version: whole }),
  comments: z.object({
    ...{ id, entry_id: ref('entries').nullable(), report_id: ref('issued_reports').nullable() },
    ...{ kind: z.enum(['comment', 'reflection', 'statement', 'amendment', 'decision']), person_id: person.nullable() },
    ...{ link_id: ref('share_links').nullable(), answers: ref('comments').nullable(), said_on: day, said_time: time },
    ...{ text: free, said_at: instant, hidden_by: person.nullable(), hidden_at: instant.nullable() },
    ...{ hidden_reason: free.nullable(), outcome: z.enum(['amended', 'refused']).nullable() },
  }),
  changes: z.object({
    ...{
      person_id: person.nullable(),
      what: z.enum(changeKinds),
      before: freeJson.nullable(),
      after: freeJson.nullable(),
    },
    ...{ changed_by: person.nullable(), changed_at: instant },
  }),

  rules: z.object({ id, made_by: person, made_at: instant, on_since: instant, switched_off_at: instant.nullable() }),
  rule_versions: z.object({
    ...{ rule_id: ref('rules'), version: whole, name: text, rule, made_by: person, made_at: instant },
  }),
  rule_firings: z.object({
    ...{ id, rule_id: ref('rules'), version: whole, key: text, entry_id: ref('entries').nullable() },
    ...{ goal_id: ref('goals').nullable(), at: instant },
  }),
  follow_ups: z.object({
    ...{ id, entry_id: ref('entries').nullable(), firing_id: ref('rule_firings').nullable() },
    ...{ comment_id: ref('comments').nullable(), what: free, for_person: person, due_on: day, in_report: yesNo },
    ...{ made_by: person.nullable(), made_at: instant, version: whole, done_at: instant.nullable() },
  }),
  follow_up_changes: z.object({
    ...{ follow_up_id: ref('follow_ups'), version: whole, what: z.enum(['done', 'handedOn', 'putOff', 'reopened']) },
    ...{ word: free, for_person: person.nullable(), due_on: day.nullable(), changed_by: person, changed_at: instant },
  }),

  works: z.object({ id, made_by: person, title: text, made_at: instant, closed_at: instant.nullable() }),
  work_steps: z.object({
    ...{ id, work_id: ref('works'), position: whole, title: text, hint: text, removed_at: instant.nullable() },
  }),
  student_works: z.object({
    ...{ work_id: ref('works'), given_by: person, given_at: instant, taken_at: instant.nullable() },
  }),
  work_states: z.object({
    ...{ id, work_id: ref('works'), step_id: ref('work_steps'), word: free, at: instant, received_at: instant },
    ...{ state: z.enum(['notBegun', 'atIt', 'stuck', 'pleaseLook', 'done']), card_id: ref('cards') },
  }),
  work_state_seen: z.object({ state_id: ref('work_states'), seen_by: person, seen_at: instant }),
};
export type RecordTables = typeof recordTables;
export type RecordTable = keyof RecordTables;
export const recordTableNames = Object.keys(recordTables) as RecordTable[];

/**
 * Columns of these tables that are not in the record: whose row it is; what leads somebody in; addresses of readers; a classmate's id; what is
 * made anew from the rest (thumbnails, sizes); what only the one installation does with it.
 */
export const leftOut: Partial<Record<RecordTable, readonly string[]>> = {
  timetable_blocks: ['school_id', 'group_id'],
  team_members: ['frequency', 'stopped_at'],
  goal_revisions: ['id'],
  behavior_targets: ['school_id'],
  behavior_options: ['school_id'],
  behavior_revisions: ['id'],
  forms: ['school_id'],
  entries: ['giver_id'],
  evidence: ['bytes', 'content', 'thumbnail', 'width', 'height'],
  work_samples: ['stack_id', 'number'],
  work_sample_files: ['bytes', 'content'],
  rating_links: ['token_hash'],
  work_sample_ratings: ['card_id', 'stack_rater_id'],
  rating_revisions: ['seq'],
  visibility_rules: ['school_id'],
  share_links: [...['passcode_hash', 'wrong_passcodes', 'wrong_at', 'locked_at', 'email', 'frequency', 'stopped_at']],
  access_log: ['id'],
  comments: ['seq'],
  changes: ['id', 'school_id'],
  rules: ['school_id', 'group_id', 'is_of_school'],
  rule_firings: ['tell', 'is_told'],
  cards: ['token_hash', 'code_hash'],
  works: ['school_id'],
};

/** Tables of the database that hold something of a student and are no part of the record, each with why. */
export const otherTables: Record<string, string> = {
  student_groups: 'as names, in the head of the record',
  round_goals: 'what somebody observes together is theirs',
  goal_decisions: 'found out anew every night',
  student_forms: 'which forms stand on a desk: the next school chooses its own',
  invitations: 'they lead in here',
  awaited_members: 'they lead in here',
  destructions: 'what is destroyed is in no record',
  record_arrivals: 'whose record came in here',
  import_parts: 'what came in together here',
  document_batch_parts: 'files that were made for somebody here',
  messages: 'the access log says what was sent to whom; their words are made of the entries',
  message_entries: 'as the messages',
  entry_events: 'what waits to be told here',
  rule_looks: 'what waits to be looked at here',
  desk_sessions: 'open doors of this installation',
  desk_turn_students: 'open doors of this installation',
  presentation_members: 'who was in it with them is others’; what was said to the student stands in their notes',
  presentation_seats: 'open doors of this installation',
  stack_raters: 'what a student says of classmates is in the classmates’ records',
};
