import { behavior } from '~/server/platform/db/migrations/0001-beginning/behavior';
import { entries } from '~/server/platform/db/migrations/0001-beginning/entries';
import { goals } from '~/server/platform/db/migrations/0001-beginning/goals';
import { messages } from '~/server/platform/db/migrations/0001-beginning/messages';
import { people } from '~/server/platform/db/migrations/0001-beginning/people';
import { reports } from '~/server/platform/db/migrations/0001-beginning/reports';
import { school } from '~/server/platform/db/migrations/0001-beginning/school';
import { sharing } from '~/server/platform/db/migrations/0001-beginning/sharing';
import { students } from '~/server/platform/db/migrations/0001-beginning/students';
import type { Rooms } from './data-diagram';

const tablesIn = (sql: string) => [...sql.matchAll(/create table (\w+)/g)].map((match) => match[1] as string);

/** The tables of each room, in the order in which they are made. */
export const rooms: Rooms = [
  { title: 'Schools and people', tables: tablesIn(people) },
  { title: 'A school’s own', tables: tablesIn(school) },
  { title: 'Students, plans and teams', tables: tablesIn(students) },
  { title: 'Goals', tables: tablesIn(goals) },
  { title: 'What behavior is chosen from', tables: tablesIn(behavior) },
  { title: 'Entries, and what hangs on them', tables: tablesIn(entries) },
  { title: 'Readers, answers, access and changes', tables: tablesIn(sharing) },
  { title: 'Progress reports and documents', tables: tablesIn(reports) },
  { title: 'Messages', tables: tablesIn(messages) },
  {
    title: 'Forms, and feedback among classmates',
    tables: [
      ...['forms', 'form_versions', 'student_forms', 'round_forms', 'presentations'],
      ...['presentation_members', 'presentation_seats', 'feedback_answers', 'feedback_said'],
    ],
  },
  {
    title: 'Stacks that several people rate',
    tables: ['stacks', 'stack_raters', 'stack_turns', 'work_sample_files', 'rating_revisions'],
  },
  {
    title: 'Rules and follow-ups',
    tables: [
      ...['rules', 'rule_versions', 'rule_firings', 'rule_looks', 'rule_nights', 'goal_decisions'],
      ...['follow_ups', 'follow_up_changes'],
    ],
  },
  {
    title: 'Links, and codes beside the password, of accounts',
    tables: [
      'account_links',
      'account_link_tokens',
      'second_factors',
      'recovery_codes',
      'half_sign_ins',
      'district_accounts',
      'calendar_addresses',
    ],
  },
  { title: 'What devices keep', tables: ['sealing_keys', 'opened_devices', 'device_factors'] },
  {
    title: 'The students’ own desk',
    tables: [
      ...['cards', 'desk_sessions', 'desk_turns', 'desk_turn_students', 'desk_goals'],
      ...['works', 'work_steps', 'student_works', 'work_states', 'work_state_seen'],
    ],
  },
  {
    title: 'Records that arrive, are asked for, and are destroyed',
    tables: ['record_arrivals', 'record_requests', 'destructions'],
  },
  {
    title: 'What came in from files',
    tables: ['imports', 'import_parts', 'import_mappings', 'awaited_members'],
  },
];

/** What stands above the diagrams. */
export const head = `# How data is held

Drawn from the live schema by \`npm run docs:data\`; a test fails when it is stale. What each table is for, and what it refuses, stands
beside it in \`server/platform/db/migrations/\`; why it is so, in [decisions.md](decisions.md).

An arrow leads from a row to the row that it cannot be without. Where two columns stand on it, the database holds that both are of the
same student (or school): an entry’s goal, an incident’s choices, a comment’s entry, a message’s reader.

`;
