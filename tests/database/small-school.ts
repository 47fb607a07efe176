import { randomUUID } from 'node:crypto';
import type { Role } from '~/core/students/roles';
import type { Database } from '~/server/platform/db/database';
import type { NewRow } from '~/server/platform/db/tables';
import type { StudentAccess } from '~/server/students/access';
import type { Right } from '~/server/students/rights';

export const today = '2026-11-24';
export const now = new Date('2026-11-24T15:00:00Z');
export const wall = { on: today, time: '10:00' };
/** The school of the tests. */
export const schoolId = '5c400100-0000-4000-8000-000000000001';

export const levels = [
  { key: 'independent', label: 'Independent', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
  { key: 'spoken', label: 'Spoken', words: 'a spoken prompt' },
];

export async function addPerson(db: Database, name: string, passwordHash = 'none'): Promise<string> {
  const id = randomUUID();
  await db('people').insert({
    id,
    name,
    short_name: name,
    initials: name.slice(0, 2),
    work: 'Teacher',
    email: `${name}@school.example`,
    password_hash: passwordHash,
    email_proven_at: now,
  });
  await db('school_staff').insert({ school_id: schoolId, person_id: id, from_date: '2026-09-01' });
  return id;
}

/** Every right with a student, as a test has it that does not ask who may. */
export const accessTo = (studentId: string) => studentId as StudentAccess<Right>;

export async function addStudent(
  db: Database,
  firstName: string,
  team: [personId: string, role: Role][],
): Promise<StudentAccess<Right>> {
  const id = randomUUID();
  await db('students').insert({
    id,
    school_id: schoolId,
    first_name: firstName,
    last_name: 'Example',
    short_name: `${firstName} E.`,
    initials: `${firstName.charAt(0)}E`,
    grade: 'Grade 4',
  });
  for (const [person_id, role] of team) {
    await db('team_members').insert({ student_id: id, person_id, role, from_date: '2026-09-01' });
  }
  return accessTo(id);
}

export const trialsMeasure = {
  kind: 'trials',
  levels,
  mostSupport: 'gesture',
  refusalIsOpportunity: true,
  planned: 5,
  mostTrials: 40,
  opportunity: { one: 'seedling', many: 'seedlings' },
};

export async function addGoal(
  db: Database,
  studentId: string,
  number = '1',
  { measure = trialsMeasure, ...more }: { measure?: object } & Record<string, unknown> = {},
): Promise<string> {
  const id = randomUUID();
  await db.transaction(async (trx) => {
    await trx('goals').insert({
      ...{ id, student_id: studentId, number, area: 'Garden', short_name: 'Plants a row', position: 0 },
      wording: 'Plants along a string.',
      ...{ comparison: 'atLeast', criterion_value: 80, rule: 'ofLast', rule_k: 3, rule_n: 4 },
      ...{ point_per: 'day', target: 80, target_on: '2027-06-11', starts_on: '2026-09-08' },
      ...more,
    });
    await trx('goal_measures').insert({
      ...{ goal_id: id, version: 1, measure: JSON.stringify(measure), from_date: '2026-09-08' },
    });
  });
  return id;
}

/** A school with a case manager, a paraprofessional, a stranger, and one student with one goal. */
export async function smallSchool(db: Database) {
  await db('schools').insert({
    id: schoolId,
    name: 'Test School',
    time_zone: 'America/New_York',
    weekdays: [1, 2, 3, 4, 5],
  });
  const kitchen = randomUUID();
  await db('locations').insert({ id: kitchen, school_id: schoolId, name: 'Kitchen', position: 0 });
  const manager = await addPerson(db, 'manager');
  const aide = await addPerson(db, 'aide');
  const stranger = await addPerson(db, 'stranger');
  const student = await addStudent(db, 'Ada', [
    [manager, 'caseManager'],
    [aide, 'paraprofessional'],
  ]);
  const goal = await addGoal(db, student);
  return { manager, aide, stranger, student, goal, kitchen };
}
export type SmallSchool = Awaited<ReturnType<typeof smallSchool>>;

export const actorOf = (personId: string) => ({ personId, schoolId, today });

/** Makes somebody an administrator of the school. */
export const makeAdmin = (db: Database, personId: string) =>
  db('school_staff').where({ school_id: schoolId, person_id: personId }).update({ is_admin: true });

/** A session of one entry, as a form sends it. */
export function sessionOf(school: SmallSchool, trials: string[], changes: Record<string, unknown> = {}) {
  return {
    on: today,
    time: '09:30',
    observerId: school.manager,
    locationId: school.kitchen,
    entries: [{ id: randomUUID(), goalId: school.goal, outcome: { data: { trials }, reason: null }, note: '' }],
    ...changes,
  };
}

/** What an incident names, as facets with the ids of behaviors and options. */
export type Named = Partial<
  Record<'behavior' | 'antecedent' | 'consequence' | 'function' | 'location' | 'intensity', string[]>
>;

/** Writes an incident as the one who observed it would have. */
export async function addIncident(
  db: Database,
  {
    id = randomUUID(),
    named,
    ...row
  }: { id?: string; named: Named; student_id: string; observer_id: string } & Partial<NewRow<'entries'>>,
): Promise<string> {
  const choices = (Object.entries(named) as [keyof Named, string[]][]).flatMap(([facet, ids]) =>
    ids.map((choice, i) => ({
      ...{ entry_id: id, version: 1, student_id: row.student_id, facet, position: i + 1 },
      ...(facet === 'behavior' ? { target_id: choice } : { option_id: choice }),
    })),
  );
  await db.transaction(async (trx) => {
    await trx('entries').insert({
      ...{ id, kind: 'incident' as const, observed_on: today, observed_time: '09:00', note: '', is_going: false },
      ...{ recorded_by: row.observer_id, recorded_at: now, ...row },
    });
    await trx('incident_choices').insert(choices);
  });
  return id;
}
