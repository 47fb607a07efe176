import { randomUUID } from 'node:crypto';
import type { Role } from '~/core/team/roles';
import type { Database } from '~/server/db/database';

export const today = '2026-11-24';
export const now = new Date('2026-11-24T15:00:00Z');
export const wall = { on: today, time: '10:00' };

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
  return id;
}

export async function addStudent(
  db: Database,
  firstName: string,
  team: [personId: string, role: Role][],
): Promise<string> {
  const id = randomUUID();
  await db('students').insert({
    id,
    first_name: firstName,
    last_name: 'Example',
    short_name: `${firstName} E.`,
    initials: `${firstName.charAt(0)}E`,
    grade: 'Grade 4',
  });
  for (const [person_id, role] of team) {
    await db('team_members').insert({ student_id: id, person_id, role, from_date: '2026-09-01' });
  }
  return id;
}

export async function addGoal(db: Database, studentId: string, number = '1'): Promise<string> {
  const id = randomUUID();
  await db('goals').insert({
    id,
    student_id: studentId,
    number,
    area: 'Garden',
    short_name: 'Plants a row',
    wording: 'Plants along a string.',
    position: 0,
    measure: JSON.stringify({
      kind: 'trials',
      levels,
      mostSupport: 'gesture',
      refusalIsOpportunity: true,
      planned: 5,
      mostTrials: 40,
      chance: { one: 'seedling', many: 'seedlings' },
    }),
    criterion: JSON.stringify({
      comparison: 'atLeast',
      value: 80,
      rule: { kind: 'ofLast', k: 3, n: 4 },
      minimumOpportunities: 1,
      distinctSettings: 1,
      distinctObservers: 1,
    }),
    point_per: 'day',
    target: 80,
    target_on: '2027-06-11',
    starts_on: '2026-09-08',
  });
  return id;
}

/** A school with a case manager, a paraprofessional, a stranger, and one student with one goal. */
export async function smallSchool(db: Database) {
  await db('school').insert({ name: 'Test School', time_zone: 'America/New_York', weekdays: [1, 2, 3, 4, 5] });
  const kitchen = randomUUID();
  await db('settings').insert({ id: kitchen, name: 'Kitchen', position: 0 });
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

export const actorOf = (personId: string) => ({ personId, today });

/** A session of one entry, as a form sends it. */
export function sessionOf(school: SmallSchool, trials: string[], changes: Record<string, unknown> = {}) {
  return {
    on: today,
    time: '09:30',
    observerId: school.manager,
    settingId: school.kitchen,
    entries: [{ id: randomUUID(), goalId: school.goal, outcome: { data: { trials }, reason: null }, note: '' }],
    ...changes,
  };
}
