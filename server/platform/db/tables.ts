// Written by `npm run db:types` from the live schema; a test fails when it is stale. Not edited by hand.
import type { Knex } from 'knex';

export interface AbsencesRow {
  id: string;
  student_id: string;
  day: string;
  part: string | null;
  recorded_by: string;
  recorded_at: Date;
  withdrawn_by: string | null;
  withdrawn_at: Date | null;
}

export interface AccessLogRow {
  id: string;
  student_id: string;
  person_id: string | null;
  link_id: string | null;
  what: string;
  how: 'opened' | 'exported' | 'sent' | 'issued' | 'kept';
  at: Date;
  day: string;
}

export interface AccountLinkTokensRow {
  token_hash: Buffer;
  link_id: string;
  is_read_out: boolean;
}

export interface AccountLinksRow {
  id: string;
  kind: 'join' | 'password' | 'email';
  school_id: string;
  person_id: string | null;
  name: string;
  email: string;
  is_admin: boolean;
  made_by: string | null;
  made_at: Date;
  ends_at: Date;
  used_at: Date | null;
  withdrawn_at: Date | null;
}

export interface AwaitedMembersRow {
  school_id: string;
  student_id: string;
  email: string;
  role: 'caseManager' | 'educator';
  import_id: string | null;
  instead_of: string | null;
}

export interface BehaviorFieldsRow {
  student_id: string;
  left_out: ('location' | 'intensity' | 'function' | 'duration' | 'resolved')[];
}

export interface BehaviorOptionsRow {
  id: string;
  school_id: string;
  student_id: string | null;
  facet: 'antecedent' | 'consequence' | 'location' | 'intensity' | 'function';
  label: string;
  description: string;
  position: number;
  state: 'offered' | 'other' | 'retired';
  merged_into: string | null;
  location_id: string | null;
  discreet_word: string;
}

export interface BehaviorPhasesRow {
  id: string;
  student_id: string;
  target_id: string | null;
  label: string;
  starts_on: string;
  made_by: string;
  removed_at: Date | null;
}

export interface BehaviorRevisionsRow {
  id: string;
  target_id: string | null;
  option_id: string | null;
  row: unknown;
  changed_by: string;
  changed_at: Date;
}

export interface BehaviorTargetsRow {
  id: string;
  school_id: string;
  student_id: string | null;
  name: string;
  definition: string;
  not_counted: string;
  direction: 'decrease' | 'increase';
  by_abc: boolean;
  by_count: boolean;
  by_time: boolean;
  position: number;
  state: 'offered' | 'other' | 'retired';
  merged_into: string | null;
  discreet_word: string;
}

export interface CalendarAddressesRow {
  person_id: string;
  token_hash: Buffer;
  has_names: boolean;
  made_at: Date;
}

export interface CardsRow {
  id: string;
  student_id: string;
  token_hash: Buffer;
  code_hash: Buffer;
  made_by: string;
  made_at: Date;
  ended_at: Date | null;
}

export interface ChangesRow {
  id: string;
  school_id: string | null;
  student_id: string | null;
  person_id: string | null;
  what: string;
  before: unknown;
  after: unknown;
  changed_by: string | null;
  changed_at: Date;
}

export interface ClassGroupsRow {
  id: string;
  school_id: string;
  name: string;
  position: number;
  sourced_id: string | null;
}

export interface ClosuresRow {
  school_id: string;
  first_day: string;
  last_day: string;
  label: string;
}

export interface CommentsRow {
  id: string;
  seq: string;
  student_id: string;
  entry_id: string | null;
  kind: 'comment' | 'reflection' | 'statement' | 'amendment' | 'decision';
  person_id: string | null;
  link_id: string | null;
  answers: string | null;
  said_on: string;
  said_time: string;
  text: string;
  said_at: Date;
  hidden_by: string | null;
  hidden_at: Date | null;
  hidden_reason: string | null;
  report_id: string | null;
  outcome: 'amended' | 'refused' | null;
}

export interface DeskGoalsRow {
  goal_id: string;
  student_id: string;
  shows: 'nothing' | 'progress' | 'log';
  plain: string;
  self_counts: boolean;
}

export interface DeskSessionsRow {
  id: string;
  card_id: string;
  student_id: string;
  token_hash: Buffer;
  began_at: Date;
  seen_at: Date;
  ended_at: Date | null;
}

export interface DeskTurnStudentsRow {
  turn_id: string;
  student_id: string;
}

export interface DeskTurnsRow {
  id: string;
  token_hash: Buffer;
  opened_by: string;
  opened_at: Date;
  ends_at: Date;
}

export interface DestructionsRow {
  id: string;
  school_id: string;
  student_id: string;
  reason: string;
  told_on: string;
  told_how: string;
  asked_by: string | null;
  asked_by_name: string;
  asked_at: Date;
  confirmed_by: string | null;
  confirmed_by_name: string | null;
  confirmed_at: Date | null;
  taken_back_by: string | null;
  taken_back_at: Date | null;
  done_at: Date | null;
  kept_name: string | null;
  kept_grade: string | null;
  kept_years: string | null;
  rows: unknown;
}

export interface DeviceFactorsRow {
  device_id: string;
  person_id: string;
  proven_on: string;
}

export interface DistrictAccountsRow {
  issuer: string;
  subject: string;
  person_id: string;
  since: Date;
}

export interface DocumentBatchPartsRow {
  batch_id: string;
  student_id: string;
  position: number;
  pages: number | null;
  pdf: Buffer | null;
  left_out: string | null;
  document: unknown;
}

export interface DocumentBatchesRow {
  id: string;
  school_id: string;
  label: string;
  students: string[];
  what: 'progress' | 'running';
  from_day: string | null;
  to_day: string | null;
  arrangement: unknown;
  made_by: string;
  made_at: Date;
  state: 'waiting' | 'making' | 'ready' | 'failed' | 'over';
  problem: string | null;
  attempts: number;
  not_before: Date;
  is_short: boolean;
  areas: string[] | null;
  is_packed: boolean;
  goals: string[] | null;
}

export interface EntriesRow {
  id: string;
  student_id: string;
  kind: 'goal' | 'incident' | 'count' | 'note';
  observed_on: string;
  observed_time: string;
  observer_id: string;
  beside_id: string | null;
  recorded_by: string;
  recorded_at: Date;
  self_recorded: boolean;
  location_id: string | null;
  note: string;
  version: number;
  changed_by: string | null;
  changed_at: Date | null;
  change_reason: string | null;
  withdrawn: boolean;
  goal_id: string | null;
  measure_version: number | null;
  data: unknown;
  reason: 'absent' | 'refused' | 'noOpportunity' | null;
  pairs_with: string | null;
  paired_by: string | null;
  paired_at: Date | null;
  seconds: number | null;
  is_going: boolean;
  resolved: boolean | null;
  resolved_after: number | null;
  target_id: string | null;
  part: string | null;
  minutes: number | null;
  count: number | null;
  fidelity: unknown;
  form_id: string | null;
  form_version: number | null;
  answers: unknown;
  giver_id: string | null;
}

export interface EntryEventsRow {
  seq: string;
  student_id: string;
  entry_id: string;
  made_at: Date;
  is_collected: boolean;
}

export interface EntryRevisionsRow {
  entry_id: string;
  version: number;
  student_id: string;
  row: unknown;
  changed_by: string;
  changed_at: Date;
  reason: string;
}

export interface EvidenceRow {
  id: string;
  student_id: string;
  entry_id: string;
  name: string;
  type: 'image/jpeg' | 'application/pdf';
  bytes: number;
  content: Buffer;
  thumbnail: Buffer | null;
  width: number | null;
  height: number | null;
  added_by: string;
  added_at: Date;
  withdrawn_by: string | null;
  withdrawn_at: Date | null;
}

export interface FeedbackAnswersRow {
  id: string;
  presentation_id: string;
  presenter_id: string;
  giver_id: string;
  held_by: string | null;
  held_at: Date | null;
}

export interface FeedbackSaidRow {
  id: string;
  seq: string;
  answer_id: string;
  answers: unknown;
  seat_id: string | null;
  said_at: Date;
}

export interface FollowUpChangesRow {
  follow_up_id: string;
  version: number;
  student_id: string;
  what: 'done' | 'handedOn' | 'putOff' | 'reopened';
  word: string;
  for_person: string | null;
  due_on: string | null;
  changed_by: string;
  changed_at: Date;
}

export interface FollowUpsRow {
  id: string;
  student_id: string;
  entry_id: string | null;
  firing_id: string | null;
  what: string;
  for_person: string;
  due_on: string;
  in_report: boolean;
  made_by: string | null;
  made_at: Date;
  version: number;
  done_at: Date | null;
  comment_id: string | null;
}

export interface FormVersionsRow {
  form_id: string;
  version: number;
  title: string;
  hint: string;
  questions: unknown;
  made_by: string;
  made_at: Date;
}

export interface FormsRow {
  id: string;
  school_id: string;
  side: 'staff' | 'self' | 'classmates';
  made_by: string;
  made_at: Date;
  closed_at: Date | null;
}

export interface GoalBankRow {
  id: string;
  school_id: string;
  goal: unknown;
  made_by: string;
  made_at: Date;
  removed_at: Date | null;
}

export interface GoalDecisionsRow {
  goal_id: string;
  is_now: string;
  seen_on: string;
}

export interface GoalLocationsRow {
  goal_id: string;
  location_id: string;
}

export interface GoalMeasuresRow {
  goal_id: string;
  version: number;
  measure: unknown;
  from_date: string;
}

export interface GoalObserversRow {
  goal_id: string;
  person_id: string;
}

export interface GoalPhasesRow {
  goal_id: string;
  label: string;
  starts_on: string;
  is_baseline: boolean;
  steps: unknown;
}

export interface GoalRevisionsRow {
  id: string;
  goal_id: string;
  row: unknown;
  changed_by: string;
  changed_at: Date;
}

export interface GoalsRow {
  id: string;
  student_id: string;
  plan_id: string | null;
  continues: string | null;
  number: string;
  area: string;
  short_name: string;
  wording: string;
  position: number;
  measure_version: number;
  point_per: 'day' | 'session';
  baseline_value: number | null;
  baseline_on: string | null;
  target: number;
  target_on: string;
  starts_on: string;
  planned_gap: number | null;
  comparison: 'atLeast' | 'atMost';
  criterion_value: number;
  rule: 'ofLast' | 'inARow';
  rule_k: number;
  rule_n: number;
  minimum_opportunities: number;
  distinct_locations: number;
  distinct_observers: number;
  edited_at: Date | null;
  retired_on: string | null;
  retired_how: 'met' | 'discontinued' | 'replaced' | null;
  replaced_by: string | null;
  retired_note: string;
}

export interface HalfSignInsRow {
  token_hash: Buffer;
  person_id: string;
  is_shared: boolean;
  made_at: Date;
  device_id: string | null;
}

export interface HeartbeatsRow {
  process: string;
  at: Date;
  problem: string | null;
}

export interface ImportMappingsRow {
  person_id: string;
  kind: string;
  headings: string;
  mapping: unknown;
  used_at: Date;
}

export interface ImportPartsRow {
  import_id: string;
  position: number;
  kind: 'student' | 'group' | 'member' | 'staff' | 'goal' | 'entry' | 'choice' | 'archived';
  student_id: string | null;
  row_id: string;
  before: unknown;
  after: unknown;
}

export interface ImportsRow {
  id: string;
  school_id: string;
  kind: 'roster' | 'goals' | 'entries' | 'incidents';
  file_name: string;
  content: unknown;
  mapping: unknown;
  made_by: string;
  made_at: Date;
  done_at: Date | null;
  undone_at: Date | null;
  undone_by: string | null;
}

export interface IncidentChoicesRow {
  entry_id: string;
  version: number;
  facet: 'behavior' | 'antecedent' | 'consequence' | 'location' | 'intensity' | 'function';
  position: number;
  student_id: string;
  target_id: string | null;
  option_id: string | null;
}

export interface InvitationTokensRow {
  token_hash: Buffer;
  invitation_id: string;
  is_read_out: boolean;
}

export interface InvitationsRow {
  id: string;
  student_id: string;
  name: string;
  email: string;
  role: 'educator' | 'paraprofessional' | 'specialist';
  rights: ('observe' | 'editGoals' | 'share')[] | null;
  until_date: string | null;
  ends_on: string;
  made_by: string;
  made_at: Date;
  accepted_by: string | null;
  accepted_at: Date | null;
  withdrawn_at: Date | null;
  declined_at: Date | null;
}

export interface IssuedReportEntriesRow {
  report_id: string;
  student_id: string;
  entry_id: string;
  version: number;
}

export interface IssuedReportsRow {
  id: string;
  student_id: string;
  number: number;
  period_id: string;
  period_label: string;
  period_from: string;
  period_to: string;
  content: unknown;
  readers: ('family' | 'student' | 'specialist')[];
  issued_by: string;
  issued_at: Date;
  replaces: string | null;
}

export interface KeptNamesRow {
  entry_id: string;
  version: number;
  student_id: string;
  kept_by: string;
  kept_at: Date;
}

export interface KnownDevicesRow {
  token_hash: Buffer;
  person_id: string;
  seen_at: Date;
}

export interface LocationsRow {
  id: string;
  school_id: string;
  name: string;
  position: number;
}

export interface MessageEntriesRow {
  message_id: string;
  student_id: string;
  entry_id: string;
  position: number;
}

export interface MessageStopsRow {
  token_hash: Buffer;
  message_id: string;
}

export interface MessageTemplatesRow {
  school_id: string;
  kind: 'entry' | 'digest' | 'byHand' | 'invitation' | 'locked' | 'issued' | 'rule' | 'reminder';
  subject: string;
  body: string;
  changed_by: string;
  changed_at: Date;
}

export interface MessagesRow {
  id: string;
  seq: string;
  key: string;
  kind: 'entry' | 'digest' | 'byHand' | 'invitation' | 'locked' | 'issued' | 'rule' | 'reminder' | 'join' | 'password' | 'email';
  student_id: string | null;
  link_id: string | null;
  person_id: string | null;
  invitation_id: string | null;
  to_name: string;
  to_email: string;
  own_subject: string | null;
  own_body: string | null;
  sent_subject: string | null;
  sent_body: string | null;
  state: 'waiting' | 'held' | 'sending' | 'sent' | 'bounced' | 'uncertain' | 'stopped' | 'failed' | 'notSetUp';
  reason: string | null;
  not_before: Date;
  attempts: number;
  made_by: string | null;
  made_at: Date;
  sent_at: Date | null;
  again_of: string | null;
  account_link_id: string | null;
}

export interface OpenedDevicesRow {
  id: string;
  school_id: string;
  group_id: string | null;
  token_hash: Buffer;
  opened_by: string;
  opened_at: Date;
  closed_at: Date | null;
}

export interface PeopleRow {
  id: string;
  name: string;
  short_name: string;
  initials: string;
  work: string;
  email: string;
  email_proven_at: Date | null;
  password_hash: string;
  demo_order: number | null;
  pin_hash: string | null;
  pin_digits: number | null;
  pin_tries: number;
  pin_tried_at: Date | null;
  pin_locked_at: Date | null;
}

export interface PlansRow {
  id: string;
  student_id: string;
  starts_on: string;
  ends_on: string;
  label: string;
}

export interface PresentationMembersRow {
  presentation_id: string;
  student_id: string;
  place: number | null;
}

export interface PresentationSeatsRow {
  id: string;
  presentation_id: string;
  student_id: string;
  token_hash: Buffer;
  began_at: Date;
}

export interface PresentationsRow {
  id: string;
  school_id: string;
  form_id: string;
  form_version: number;
  title: string;
  shows_names: boolean;
  looks_through: boolean;
  token_hash: Buffer;
  made_by: string;
  made_at: Date;
  closed_at: Date | null;
}

export interface ProgressReportDraftsRow {
  period_id: string;
  student_id: string;
  words: unknown;
  version: number;
  changed_by: string;
  changed_at: Date;
}

export interface RateLimitsRow {
  key: string;
  points: number;
  expire: string | null;
}

export interface RatingLinksRow {
  token_hash: Buffer;
  id: string;
  work_sample_id: string;
  kind: 'peer' | 'student';
  label: string;
  ends_at: Date;
  withdrawn_at: Date | null;
}

export interface RatingRevisionsRow {
  rating_id: string;
  seq: string;
  points: unknown;
  words: string;
  rated_at: Date;
}

export interface RecordArrivalsRow {
  id: string;
  school_id: string;
  file_name: string;
  archive: Buffer | null;
  source_id: string;
  made_by: string;
  made_at: Date;
  done_at: Date | null;
  student_id: string | null;
}

export interface RecordRequestsRow {
  id: string;
  student_id: string;
  asked_by: string;
  asked_on: string;
  noted_by: string;
  noted_at: Date;
  answered_by: string | null;
  answered_at: Date | null;
}

export interface RecoveryCodesRow {
  person_id: string;
  code_hash: Buffer;
  used_at: Date | null;
}

export interface ReportingPeriodsRow {
  id: string;
  plan_id: string;
  label: string;
  ends_on: string;
  removed_at: Date | null;
}

export interface RoundFormsRow {
  round_id: string;
  form_id: string;
  position: number;
}

export interface RoundGoalsRow {
  round_id: string;
  goal_id: string;
  student_id: string;
  position: number;
}

export interface RoundsRow {
  id: string;
  name: string;
  made_by: string;
  school_id: string;
  weekday: number | null;
  starts_at: string | null;
  removed_at: Date | null;
}

export interface RuleFiringsRow {
  id: string;
  rule_id: string;
  version: number;
  student_id: string;
  key: string;
  entry_id: string | null;
  goal_id: string | null;
  at: Date;
  tell: string | null;
  is_told: boolean;
}

export interface RuleLooksRow {
  seq: string;
  student_id: string;
  entry_id: string | null;
  state_id: string | null;
}

export interface RuleNightsRow {
  school_id: string;
  looked_on: string;
}

export interface RuleVersionsRow {
  rule_id: string;
  version: number;
  name: string;
  rule: unknown;
  made_by: string;
  made_at: Date;
}

export interface RulesRow {
  id: string;
  school_id: string;
  student_id: string | null;
  group_id: string | null;
  is_of_school: boolean;
  made_by: string;
  made_at: Date;
  on_since: Date;
  switched_off_at: Date | null;
}

export interface SchoolStaffRow {
  school_id: string;
  person_id: string;
  is_admin: boolean;
  from_date: string;
  until_date: string | null;
  opens_devices: boolean;
}

export interface SchoolsRow {
  id: string;
  name: string;
  time_zone: string;
  weekdays: number[];
  idle_minutes: number;
  shared_idle_minutes: number;
  daily_message_limit: number;
  is_demo: boolean;
  step_words: unknown;
  days_on_devices: number;
  lock_minutes: number | null;
  paper: 'letter' | 'a4';
  asks_second_factor: boolean;
}

export interface SealingKeysRow {
  id: string;
  public_key: unknown;
  private_key: unknown;
  made_at: Date;
}

export interface SecondFactorsRow {
  person_id: string;
  secret: string;
  made_at: Date;
  confirmed_at: Date | null;
  last_step: string | null;
}

export interface SetUpCodesRow {
  only_one: boolean;
  code_hash: Buffer;
  made_at: Date;
}

export interface ShareLinkPassesRow {
  token_hash: Buffer;
  link_id: string;
  ends_at: Date;
}

export interface ShareLinkTokensRow {
  token_hash: Buffer;
  link_id: string;
  made_at: Date;
}

export interface ShareLinksRow {
  id: string;
  student_id: string;
  reader_name: string;
  kind: 'family' | 'student' | 'specialist';
  purpose: string;
  ends_on: string;
  created_by: string;
  created_at: Date;
  withdrawn_by: string | null;
  withdrawn_at: Date | null;
  passcode_hash: string | null;
  wrong_passcodes: number;
  wrong_at: Date | null;
  locked_at: Date | null;
  email: string | null;
  frequency: 'byHand' | 'entry' | 'daily' | 'weekly';
  stopped_at: Date | null;
}

export interface SignInSessionsRow {
  id: string;
  person_id: string;
  school_id: string | null;
  token_hash: Buffer;
  previous_hash: Buffer | null;
  is_shared: boolean;
  created_at: Date;
  rotated_at: Date;
  seen_at: Date;
  locked_at: Date | null;
  device_id: string | null;
}

export interface StackRatersRow {
  id: string;
  stack_id: string;
  person_id: string | null;
  student_id: string | null;
  token_hash: Buffer;
}

export interface StackTurnsRow {
  rater_id: string;
  stack_id: string;
  work_sample_id: string;
}

export interface StacksRow {
  id: string;
  school_id: string;
  title: string;
  each_rated_by: number;
  made_by: string;
  made_at: Date;
  closed_at: Date | null;
}

export interface StudentFormsRow {
  student_id: string;
  form_id: string;
  given_by: string;
  given_at: Date;
  taken_at: Date | null;
}

export interface StudentGroupsRow {
  student_id: string;
  group_id: string;
  school_id: string;
}

export interface StudentWorksRow {
  student_id: string;
  work_id: string;
  given_by: string;
  given_at: Date;
  taken_at: Date | null;
}

export interface StudentsRow {
  id: string;
  school_id: string;
  first_name: string;
  last_name: string;
  short_name: string;
  initials: string;
  grade: string;
  archived_at: Date | null;
  sourced_id: string | null;
  undone_at: Date | null;
}

export interface TeamMembersRow {
  id: string;
  student_id: string;
  person_id: string;
  role: 'caseManager' | 'educator' | 'paraprofessional' | 'specialist';
  rights: ('observe' | 'editGoals' | 'share')[] | null;
  from_date: string;
  until_date: string | null;
  frequency: 'byHand' | 'entry' | 'daily' | 'weekly';
  stopped_at: Date | null;
  changed_by: string | null;
  changed_at: Date | null;
}

export interface TestMailInboxRow {
  id: string;
  message_id: string;
  recipient: string;
  subject: string;
  body: string;
  headers: unknown;
  arrived_at: Date;
}

export interface TestMailRulesRow {
  id: string;
  address: string;
  does: 'bounce' | 'defer' | 'delay';
  seconds: number;
  words: string;
  made_at: Date;
}

export interface TimetableBlocksRow {
  id: string;
  school_id: string;
  group_id: string | null;
  student_id: string | null;
  weekday: number;
  part: string;
  starts_at: string;
  ends_at: string;
  location_id: string | null;
}

export interface VisibilityRulesRow {
  school_id: string;
  student_id: string | null;
  kind: 'team' | 'family' | 'student' | 'specialist';
  fields: string[];
  layout: 'sentences' | 'table' | 'cards';
  grouping: string;
  oldest_first: boolean;
  changed_by: string;
  changed_at: Date;
}

export interface WorkSampleFilesRow {
  work_sample_id: string;
  type: 'image/jpeg' | 'application/pdf';
  bytes: number;
  content: Buffer;
  added_by: string;
  added_at: Date;
}

export interface WorkSampleRatingsRow {
  id: string;
  work_sample_id: string;
  person_id: string | null;
  rating_link_id: string | null;
  points: unknown;
  words: string;
  rated_at: Date;
  card_id: string | null;
  stack_rater_id: string | null;
}

export interface WorkSamplesRow {
  id: string;
  student_id: string;
  goal_id: string;
  measure_version: number;
  title: string;
  made_on: string;
  made_by: string;
  made_at: Date;
  entry_id: string | null;
  stack_id: string | null;
  work_text: string | null;
  number: number | null;
}

export interface WorkStateSeenRow {
  state_id: string;
  student_id: string;
  seen_by: string;
  seen_at: Date;
}

export interface WorkStatesRow {
  id: string;
  student_id: string;
  work_id: string;
  step_id: string;
  state: 'notBegun' | 'atIt' | 'stuck' | 'pleaseLook' | 'done';
  word: string;
  at: Date;
  received_at: Date;
  card_id: string;
}

export interface WorkStepsRow {
  id: string;
  work_id: string;
  position: number;
  title: string;
  hint: string;
  removed_at: Date | null;
}

export interface WorksRow {
  id: string;
  school_id: string;
  made_by: string;
  title: string;
  made_at: Date;
  closed_at: Date | null;
}

export interface BehaviorChoicesRow {
  id: string;
  school_id: string;
  student_id: string;
  kind: string;
  name: string;
  words: string;
  unlike: string;
  direction: string;
  abc: boolean;
  counted: boolean;
  timed: boolean;
  position: number;
  state: string;
  merged_into: string;
  location_id: string;
  discreet_word: string;
}

/** A row as it is read; as it is inserted, what has a default may be left out; as it is changed, anything may. */
type Table<Row, Given extends keyof Row> = Knex.CompositeTableType<
  Row,
  Written<Omit<Row, Given>> & Partial<Written<Pick<Row, Given>>>,
  Partial<Written<Row>>
>;
type Written<Row> = { [Column in keyof Row]: Row[Column] | Knex.Raw };

/** What it takes to insert a row. */
export type NewRow<Name extends keyof AllTables> = Knex.ResolveTableType<AllTables[Name], 'insert'>;

interface AllTables {
  absences: Table<AbsencesRow, 'part' | 'withdrawn_by' | 'withdrawn_at'>;
  access_log: Table<AccessLogRow, 'id' | 'person_id' | 'link_id'>;
  account_link_tokens: Table<AccountLinkTokensRow, 'is_read_out'>;
  account_links: Table<AccountLinksRow, 'person_id' | 'is_admin' | 'made_by' | 'used_at' | 'withdrawn_at'>;
  awaited_members: Table<AwaitedMembersRow, 'import_id' | 'instead_of'>;
  behavior_fields: Table<BehaviorFieldsRow, never>;
  behavior_options: Table<BehaviorOptionsRow, 'student_id' | 'description' | 'state' | 'merged_into' | 'location_id' | 'discreet_word'>;
  behavior_phases: Table<BehaviorPhasesRow, 'target_id' | 'removed_at'>;
  behavior_revisions: Table<BehaviorRevisionsRow, 'id' | 'target_id' | 'option_id'>;
  behavior_targets: Table<BehaviorTargetsRow, 'student_id' | 'definition' | 'not_counted' | 'direction' | 'by_abc' | 'by_count' | 'by_time' | 'state' | 'merged_into' | 'discreet_word'>;
  calendar_addresses: Table<CalendarAddressesRow, 'has_names'>;
  cards: Table<CardsRow, 'ended_at'>;
  changes: Table<ChangesRow, 'id' | 'school_id' | 'student_id' | 'person_id' | 'before' | 'after' | 'changed_by'>;
  class_groups: Table<ClassGroupsRow, 'sourced_id'>;
  closures: Table<ClosuresRow, never>;
  comments: Table<CommentsRow, 'seq' | 'entry_id' | 'person_id' | 'link_id' | 'answers' | 'hidden_by' | 'hidden_at' | 'hidden_reason' | 'report_id' | 'outcome'>;
  desk_goals: Table<DeskGoalsRow, 'plain' | 'self_counts'>;
  desk_sessions: Table<DeskSessionsRow, 'ended_at'>;
  desk_turn_students: Table<DeskTurnStudentsRow, never>;
  desk_turns: Table<DeskTurnsRow, never>;
  destructions: Table<DestructionsRow, 'asked_by' | 'confirmed_by' | 'confirmed_by_name' | 'confirmed_at' | 'taken_back_by' | 'taken_back_at' | 'done_at' | 'kept_name' | 'kept_grade' | 'kept_years' | 'rows'>;
  device_factors: Table<DeviceFactorsRow, never>;
  district_accounts: Table<DistrictAccountsRow, never>;
  document_batch_parts: Table<DocumentBatchPartsRow, 'pages' | 'pdf' | 'left_out' | 'document'>;
  document_batches: Table<DocumentBatchesRow, 'from_day' | 'to_day' | 'arrangement' | 'state' | 'problem' | 'attempts' | 'not_before' | 'is_short' | 'areas' | 'is_packed' | 'goals'>;
  entries: Table<EntriesRow, 'beside_id' | 'self_recorded' | 'location_id' | 'version' | 'changed_by' | 'changed_at' | 'change_reason' | 'withdrawn' | 'goal_id' | 'measure_version' | 'data' | 'reason' | 'pairs_with' | 'paired_by' | 'paired_at' | 'seconds' | 'is_going' | 'resolved' | 'resolved_after' | 'target_id' | 'part' | 'minutes' | 'count' | 'fidelity' | 'form_id' | 'form_version' | 'answers' | 'giver_id'>;
  entry_events: Table<EntryEventsRow, 'seq' | 'is_collected'>;
  entry_revisions: Table<EntryRevisionsRow, never>;
  evidence: Table<EvidenceRow, 'thumbnail' | 'width' | 'height' | 'withdrawn_by' | 'withdrawn_at'>;
  feedback_answers: Table<FeedbackAnswersRow, 'held_by' | 'held_at'>;
  feedback_said: Table<FeedbackSaidRow, 'seq' | 'seat_id'>;
  follow_up_changes: Table<FollowUpChangesRow, 'word' | 'for_person' | 'due_on'>;
  follow_ups: Table<FollowUpsRow, 'entry_id' | 'firing_id' | 'in_report' | 'made_by' | 'version' | 'done_at' | 'comment_id'>;
  form_versions: Table<FormVersionsRow, 'hint'>;
  forms: Table<FormsRow, 'closed_at'>;
  goal_bank: Table<GoalBankRow, 'removed_at'>;
  goal_decisions: Table<GoalDecisionsRow, never>;
  goal_locations: Table<GoalLocationsRow, never>;
  goal_measures: Table<GoalMeasuresRow, never>;
  goal_observers: Table<GoalObserversRow, never>;
  goal_phases: Table<GoalPhasesRow, 'steps'>;
  goal_revisions: Table<GoalRevisionsRow, 'id'>;
  goals: Table<GoalsRow, 'plan_id' | 'continues' | 'measure_version' | 'baseline_value' | 'baseline_on' | 'planned_gap' | 'minimum_opportunities' | 'distinct_locations' | 'distinct_observers' | 'edited_at' | 'retired_on' | 'retired_how' | 'replaced_by' | 'retired_note'>;
  half_sign_ins: Table<HalfSignInsRow, 'device_id'>;
  heartbeats: Table<HeartbeatsRow, 'problem'>;
  import_mappings: Table<ImportMappingsRow, never>;
  import_parts: Table<ImportPartsRow, 'student_id' | 'before' | 'after'>;
  imports: Table<ImportsRow, 'content' | 'done_at' | 'undone_at' | 'undone_by'>;
  incident_choices: Table<IncidentChoicesRow, 'target_id' | 'option_id'>;
  invitation_tokens: Table<InvitationTokensRow, 'is_read_out'>;
  invitations: Table<InvitationsRow, 'rights' | 'until_date' | 'accepted_by' | 'accepted_at' | 'withdrawn_at' | 'declined_at'>;
  issued_report_entries: Table<IssuedReportEntriesRow, never>;
  issued_reports: Table<IssuedReportsRow, 'replaces'>;
  kept_names: Table<KeptNamesRow, never>;
  known_devices: Table<KnownDevicesRow, never>;
  locations: Table<LocationsRow, never>;
  message_entries: Table<MessageEntriesRow, never>;
  message_stops: Table<MessageStopsRow, never>;
  message_templates: Table<MessageTemplatesRow, never>;
  messages: Table<MessagesRow, 'seq' | 'student_id' | 'link_id' | 'person_id' | 'invitation_id' | 'own_subject' | 'own_body' | 'sent_subject' | 'sent_body' | 'reason' | 'attempts' | 'made_by' | 'sent_at' | 'again_of' | 'account_link_id'>;
  opened_devices: Table<OpenedDevicesRow, 'group_id' | 'closed_at'>;
  people: Table<PeopleRow, 'email_proven_at' | 'demo_order' | 'pin_hash' | 'pin_digits' | 'pin_tries' | 'pin_tried_at' | 'pin_locked_at'>;
  plans: Table<PlansRow, 'label'>;
  presentation_members: Table<PresentationMembersRow, 'place'>;
  presentation_seats: Table<PresentationSeatsRow, never>;
  presentations: Table<PresentationsRow, 'closed_at'>;
  progress_report_drafts: Table<ProgressReportDraftsRow, never>;
  rate_limits: Table<RateLimitsRow, 'points' | 'expire'>;
  rating_links: Table<RatingLinksRow, 'withdrawn_at'>;
  rating_revisions: Table<RatingRevisionsRow, 'seq'>;
  record_arrivals: Table<RecordArrivalsRow, 'archive' | 'done_at' | 'student_id'>;
  record_requests: Table<RecordRequestsRow, 'answered_by' | 'answered_at'>;
  recovery_codes: Table<RecoveryCodesRow, 'used_at'>;
  reporting_periods: Table<ReportingPeriodsRow, 'id' | 'removed_at'>;
  round_forms: Table<RoundFormsRow, never>;
  round_goals: Table<RoundGoalsRow, never>;
  rounds: Table<RoundsRow, 'weekday' | 'starts_at' | 'removed_at'>;
  rule_firings: Table<RuleFiringsRow, 'entry_id' | 'goal_id' | 'tell' | 'is_told'>;
  rule_looks: Table<RuleLooksRow, 'seq' | 'entry_id' | 'state_id'>;
  rule_nights: Table<RuleNightsRow, never>;
  rule_versions: Table<RuleVersionsRow, never>;
  rules: Table<RulesRow, 'student_id' | 'group_id' | 'is_of_school' | 'switched_off_at'>;
  school_staff: Table<SchoolStaffRow, 'is_admin' | 'until_date' | 'opens_devices'>;
  schools: Table<SchoolsRow, 'idle_minutes' | 'shared_idle_minutes' | 'daily_message_limit' | 'is_demo' | 'step_words' | 'days_on_devices' | 'lock_minutes' | 'paper' | 'asks_second_factor'>;
  sealing_keys: Table<SealingKeysRow, never>;
  second_factors: Table<SecondFactorsRow, 'confirmed_at' | 'last_step'>;
  set_up_codes: Table<SetUpCodesRow, 'only_one'>;
  share_link_passes: Table<ShareLinkPassesRow, never>;
  share_link_tokens: Table<ShareLinkTokensRow, never>;
  share_links: Table<ShareLinksRow, 'withdrawn_by' | 'withdrawn_at' | 'passcode_hash' | 'wrong_passcodes' | 'wrong_at' | 'locked_at' | 'email' | 'frequency' | 'stopped_at'>;
  sign_in_sessions: Table<SignInSessionsRow, 'school_id' | 'previous_hash' | 'is_shared' | 'locked_at' | 'device_id'>;
  stack_raters: Table<StackRatersRow, 'person_id' | 'student_id'>;
  stack_turns: Table<StackTurnsRow, never>;
  stacks: Table<StacksRow, 'closed_at'>;
  student_forms: Table<StudentFormsRow, 'taken_at'>;
  student_groups: Table<StudentGroupsRow, never>;
  student_works: Table<StudentWorksRow, 'taken_at'>;
  students: Table<StudentsRow, 'archived_at' | 'sourced_id' | 'undone_at'>;
  team_members: Table<TeamMembersRow, 'id' | 'rights' | 'until_date' | 'frequency' | 'stopped_at' | 'changed_by' | 'changed_at'>;
  test_mail_inbox: Table<TestMailInboxRow, 'id'>;
  test_mail_rules: Table<TestMailRulesRow, 'seconds' | 'words'>;
  timetable_blocks: Table<TimetableBlocksRow, 'group_id' | 'student_id' | 'location_id'>;
  visibility_rules: Table<VisibilityRulesRow, 'student_id'>;
  work_sample_files: Table<WorkSampleFilesRow, never>;
  work_sample_ratings: Table<WorkSampleRatingsRow, 'person_id' | 'rating_link_id' | 'card_id' | 'stack_rater_id'>;
  work_samples: Table<WorkSamplesRow, 'entry_id' | 'stack_id' | 'work_text' | 'number'>;
  work_state_seen: Table<WorkStateSeenRow, never>;
  work_states: Table<WorkStatesRow, 'word'>;
  work_steps: Table<WorkStepsRow, 'hint' | 'removed_at'>;
  works: Table<WorksRow, 'closed_at'>;
  behavior_choices: Table<BehaviorChoicesRow, never>;
}

declare module 'knex/types/tables.js' {
  interface Tables extends AllTables {}
}
