import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { functions } from './guard-functions';

/** Whom the database knows besides its owner: each sees what its policies let it see. */
export const roles = { app: 'gentle_margin_app', worker: 'gentle_margin_worker' } as const;
export type DatabaseRole = keyof typeof roles;

const yes = 'true';
const theirs = 'student_id = any((select visible_students())::uuid[])';
const ofTheSchoolOrTheirs = `student_id is null or ${theirs}`;
const roster = (student: string) =>
  `exists (select from students r where r.id = ${student} and r.school_id = any((select administered_schools())::uuid[]))`;
const through = (column: string, table: string) => `${column} in (select id from ${table})`;

/**
 * Which rows the application sees of each table that holds something of a student: those of the students whom the one who asks may
 * know of. What is seen through another table is seen as far as that one is.
 */
export const visible: Record<string, string> = {
  students: `id = any((select visible_students())::uuid[]) or school_id = any((select administered_schools())::uuid[])`,
  student_groups: `${theirs} or school_id = any((select administered_schools())::uuid[])`,
  team_members: `${theirs} or person_id = asker() or ${roster('student_id')}`,
  timetable_blocks: ofTheSchoolOrTheirs,
  behavior_targets: ofTheSchoolOrTheirs,
  behavior_options: ofTheSchoolOrTheirs,
  visibility_rules: ofTheSchoolOrTheirs,
  // What each reader sees by a school's rule is no secret to those who work there.
  changes: `(student_id is not null and ${theirs}) or school_id = any((select administered_schools())::uuid[])
    or (student_id is null and what = 'visibility')`,
  invitations: `${theirs} or lower(email) = (select asker_email())`,
  // Of whom a file is, by name; and whole messages, which are read over nobody's shoulder where it is no demo.
  document_batches: 'made_by = asker()',
  test_mail_inbox: `exists (select from schools c where c.is_demo and c.id = any((select administered_schools())::uuid[]))`,
  ...Object.fromEntries(
    [
      ...[
        'plans',
        'absences',
        'goals',
        'round_goals',
        'behavior_fields',
        'behavior_phases',
        'entries',
        'incident_choices',
      ],
      ...['entry_revisions', 'kept_names', 'evidence', 'work_samples', 'share_links', 'access_log', 'comments'],
      ...['progress_report_drafts', 'issued_reports', 'issued_report_entries', 'document_batch_parts', 'entry_events'],
      ...[
        'message_entries',
        'cards',
        'desk_sessions',
        'desk_goals',
        'desk_turn_students',
        'student_works',
        'work_states',
        'work_state_seen',
        'student_forms',
        'presentation_members',
        'presentation_seats',
        'rule_firings',
        'rule_looks',
        'follow_ups',
        'follow_up_changes',
        'record_requests',
      ],
    ].map((table) => [table, theirs]),
  ),
  // What stands in a file is its owner's; a roster's is also that of who sets up the school.
  imports: `made_by = asker() or (kind = 'roster' and school_id = any((select administered_schools())::uuid[]))`,
  // A whole record waits in it; what is looked at before it comes in is a name and numbers.
  destructions: 'school_id = any((select administered_schools())::uuid[])',
  record_arrivals: 'school_id = any((select administered_schools())::uuid[])',
  import_parts: through('import_id', 'imports'),
  import_mappings: 'person_id = asker()',
  awaited_members: `lower(email) = (select asker_email()) or ${roster('student_id')}`,
  // One about an account tells nothing of any student.
  messages: ofTheSchoolOrTheirs,
  // One that is about no student in particular names nobody.
  rules: ofTheSchoolOrTheirs,
  rule_versions: through('rule_id', 'rules'),
  goal_decisions: through('goal_id', 'goals'),
  reporting_periods: through('plan_id', 'plans'),
  goal_measures: through('goal_id', 'goals'),
  goal_phases: through('goal_id', 'goals'),
  goal_observers: through('goal_id', 'goals'),
  goal_locations: through('goal_id', 'goals'),
  goal_revisions: through('goal_id', 'goals'),
  behavior_revisions: `${through('target_id', 'behavior_targets')} or ${through('option_id', 'behavior_options')}`,
  rating_links: through('work_sample_id', 'work_samples'),
  work_sample_ratings: through('work_sample_id', 'work_samples'),
  share_link_tokens: through('link_id', 'share_links'),
  share_link_passes: through('link_id', 'share_links'),
  invitation_tokens: through('invitation_id', 'invitations'),
  message_stops: through('message_id', 'messages'),
  desk_turns: 'opened_by = asker()',
  // A piece of work is its maker's, and that of whoever knows a student who has it.
  works: `made_by = asker() or ${through('id', '(select work_id as id from student_works) given')}`,
  work_steps: through('work_id', 'works'),
  // A form is its school's: of whoever works there, and of the students who go there.
  forms: 'school_id = any((select asker_schools())::uuid[])',
  form_versions: through('form_id', 'forms'),
  round_forms: through('form_id', 'forms'),
  presentations: `made_by = asker() or ${through('id', '(select presentation_id as id from presentation_members) member')}`,
  stacks: `made_by = asker() or ${through('id', '(select stack_id as id from work_samples) sample')}`,
  // A classmate who rates is no secret to the team of whom they rate.
  stack_raters: through('stack_id', 'stacks'),
  stack_turns: through('work_sample_id', 'work_samples'),
  work_sample_files: through('work_sample_id', 'work_samples'),
  rating_revisions: through('rating_id', 'work_sample_ratings'),
  // What a classmate says is theirs, and the staff's of whom it is about; the one who presented reads it in their notes.
  feedback_answers: `giver_id = any((select visible_students())::uuid[])
    or (asker() is not null and presenter_id = any((select visible_students())::uuid[]))`,
  feedback_said: through('answer_id', 'feedback_answers'),
};

/** Where everybody may write a line, whoever asks: what is refused here would be a change that nobody hears of. */
const addedByAll = ['changes', 'access_log'];

/** What is written down once: the application may add to it, and nothing else. */
export const writtenOnce = [
  ...['entry_revisions', 'incident_choices', 'goal_revisions', 'behavior_revisions', 'kept_names'],
  ...['access_log', 'changes', 'issued_reports', 'issued_report_entries', 'message_entries'],
  ...['work_states', 'work_state_seen', 'form_versions', 'feedback_said', 'rating_revisions'],
  ...['rule_versions', 'follow_up_changes', 'import_parts'],
];
/** What is changed, and never taken away. */
export const kept = [
  ...['entries', 'goals', 'goal_measures', 'behavior_targets', 'behavior_options', 'evidence', 'comments', 'messages'],
  ...['work_sample_ratings', 'students', 'plans', 'share_links', 'people', 'schools', 'cards', 'works', 'work_steps'],
  ...['forms', 'presentations', 'feedback_answers', 'stacks', 'stack_raters', 'work_samples'],
  ...['rules', 'follow_ups', 'rule_firings', 'destructions', 'record_requests'],
];

const makeRole = (name: string) => `
  do $$ begin
    if not exists (select from pg_roles where rolname = '${name}') then create role ${name} nologin; end if;
    if not pg_has_role(current_user, '${name}', 'member') then grant ${name} to current_user; end if;
  exception when duplicate_object or unique_violation then null;
  end $$;`;

const policies = Object.entries(visible).map(
  ([table, seen]) => `
  alter table ${table} enable row level security;
  alter table ${table} force row level security;
  drop policy if exists owner_all on ${table};
  drop policy if exists app_theirs on ${table};
  drop policy if exists app_adds on ${table};
  drop policy if exists worker_all on ${table};
  create policy owner_all on ${table} to current_user using (${yes}) with check (${yes});
  ${
    addedByAll.includes(table)
      ? `create policy app_theirs on ${table} for select to ${roles.app} using (${seen});
         create policy app_adds on ${table} for insert to ${roles.app} with check (${yes});`
      : `create policy app_theirs on ${table} to ${roles.app} using (${seen}) with check (${seen});`
  }
  create policy worker_all on ${table} to ${roles.worker} using (${yes}) with check (${yes});`,
);

const grants = Object.values(roles).map(
  (role) => `
  grant usage on schema public to ${role};
  grant select, insert, update, delete on all tables in schema public to ${role};
  grant usage on all sequences in schema public to ${role};
  revoke all on knex_migrations, knex_migrations_lock from ${role};
  revoke update, delete on ${writtenOnce.join(', ')} from ${role};
  revoke delete on ${kept.join(', ')} from ${role};`,
);

/**
 * Functions that run as the owner look for names in the tables of the application alone, and never first where anybody may make some; and
 * they are there for its roles only.
 */
const hardened = `
  do $$ declare f regprocedure; begin
    for f in select p.oid::regprocedure from pg_proc p
              where p.pronamespace = 'public'::regnamespace and p.prosecdef and p.proowner = current_user::regrole loop
      execute format('alter function %s set search_path = public, pg_temp', f);
      execute format('revoke all on function %s from public', f);
      execute format('grant execute on function %s to ${roles.app}, ${roles.worker}', f);
    end loop;
  end $$;`;

const whole = [functions, hardened, ...policies, ...grants].join('\n');
const mark = createHash('sha256').update(whole).digest('hex');

/** Says why there is no second line of defence, and what to do. */
export class NoRoles extends Error {
  constructor() {
    super(
      'The user in DATABASE_URL may not make roles, so the database cannot guard students’ rows itself (row-level security). ' +
        'Grant it CREATEROLE, or set ROW_SECURITY=off to run with the checks of the program alone.',
    );
  }
}

/**
 * Puts up the second line of defence: roles, their rights, and policies. Where it stands as this version has it, nothing is done.
 *
 * @throws NoRoles where the database’s user may not make roles
 */
export async function guard(db: Knex): Promise<void> {
  const found = await db.raw<{ rows: { mark: string | null; owner: string }[] }>(
    `select obj_description(to_regprocedure('visible_students()'), 'pg_proc') as mark, current_user as owner`,
  );
  // Another owner has policies of its own to be given.
  const stands = `${mark} ${found.rows[0]?.owner}`;
  if (found.rows[0]?.mark === stands) return;
  await db.transaction(async (trx) => {
    try {
      for (const role of Object.values(roles)) await trx.raw(makeRole(role));
    } catch (error) {
      if ((error as { code?: unknown }).code === '42501') throw new NoRoles();
      throw error;
    }
    await trx.raw(whole);
    await trx.raw(`comment on function visible_students() is '${stands}'`);
  });
}
