import { randomUUID } from 'node:crypto';
import { patternsAcross } from '~/core/behavior/patterns';
import { schoolDays } from '~/core/calendar/school-days';
import { incidentsAcross } from '~/server/behavior/behavior';
import type { StudentAccess } from '~/server/students/access';
import { follow } from '~/tests/database/followed';
import { addPerson, addStudent, schoolId } from '~/tests/database/small-school';
import { at, db, get, milliseconds, page, round, row, school, summary } from './ground';

// Behavior: its page with thousands of incidents, and patterns over many students.

/** A behavior page with thousands of incidents, a filter changed on it, and patterns over many students. */
export async function behavior() {
  const { id } = await follow(db, school);
  const choices = { behaviors: ['Leaves', 'Shouts'], antecedents: ['Noise', 'Waiting'], consequences: ['A break'] };
  const ids = Object.fromEntries(Object.entries(choices).map(([list, names]) => [list, names.map(id)]));
  const pick = (list: readonly unknown[] | undefined, i: number) => list?.[i % list.length];
  const incident = (student: string, i: number) => ({
    ...{
      id: randomUUID(),
      student_id: student,
      observed_on: row(school.goal, i).observed_on,
      is_going: false,
      note: '',
    },
    observed_time: `${String(9 + (i % 6)).padStart(2, '0')}:${String((i * 7) % 60).padStart(2, '0')}`,
    ...{ observer_id: school.manager, recorded_by: school.manager, recorded_at: new Date() },
    ...{ kind: 'incident', seconds: 30 + (i % 200) },
  });
  const choicesOf = (
    { id: entry_id, student_id }: { id: string; student_id: string },
    i: number,
  ): Record<string, unknown>[] => {
    const row = { entry_id, student_id, version: 1, position: 1 };
    return [
      { ...row, facet: 'behavior', target_id: pick(ids.behaviors, i), option_id: null },
      { ...row, facet: 'antecedent', target_id: null, option_id: pick(ids.antecedents, i >> 1) },
      { ...row, facet: 'consequence', target_id: null, option_id: pick(ids.consequences, 0) },
      { ...row, facet: 'location', target_id: null, option_id: id('Kitchen') },
    ];
  };
  const incidents = (student: string, n: number) => Array.from({ length: n }, (_, i) => incident(student, i));
  const all = incidents(school.student, BEHAVIOR_INCIDENTS);
  await db.transaction(async (trx) => {
    await trx.batchInsert('entries', all, 500);
    await trx.batchInsert('incident_choices', all.flatMap(choicesOf), 1000);
  });
  await db.raw('analyze');
  const path = `${page}/behavior`;
  const filters = ['from=2026-09-08', 'from=2026-10-01', `behavior=${id('Shouts')}`, `observer=${school.manager}`];
  const times = { page: [] as number[], readsNothing: [] as number[], filter: [] as number[] };
  for (let i = 0; i < 60; i++) for (const one of [path, '/account']) await get(one)();
  for (let i = 0; i < 60; i++) {
    times.page.push(await milliseconds(get(path)));
    times.readsNothing.push(await milliseconds(get('/account')));
    times.filter.push(await milliseconds(get(`${path}.data?${filters[i % filters.length]}`)));
  }
  return {
    incidents: BEHAVIOR_INCIDENTS,
    page: summary(times.page),
    ratio: round(at(times.page, 0.5) / at(times.readsNothing, 0.5)),
    atMost: 4,
    filter: { ...summary(times.filter), atMostMs: 100 },
    patterns: await patterns(incident),
  };
}

const BEHAVIOR_INCIDENTS = 5000;
const PATTERN_STUDENTS = 200;

/** Patterns over 200 students, as their incidents become more: the cost should grow in line with them. */
async function patterns(incident: (student: string, i: number) => { id: string; student_id: string }) {
  const manager = await addPerson(db, 'patterns');
  const students: StudentAccess<'see'>[] = [];
  for (let i = 0; i < PATTERN_STUDENTS; i++) students.push(await addStudent(db, `S${i}`, [[manager, 'caseManager']]));
  await db.raw(
    `insert into behavior_targets (id, school_id, student_id, name, position)
     select s, :schoolId, s, 'Leaves', 0 from unnest(cast(:students as uuid[])) s`,
    { schoolId, students },
  );
  const options = new Map(
    students.map((student) => [student, ['Noise', 'Waiting', 'A break'].map(() => randomUUID())]),
  );
  await db.batchInsert(
    'behavior_options',
    [...options].flatMap(([student_id, ids]) =>
      ids.map((id, i) => ({
        ...{
          id,
          school_id: schoolId,
          student_id,
          facet: i < 2 ? 'antecedent' : 'consequence',
          label: `${i}`,
          position: i,
        },
      })),
    ),
    500,
  );
  const results: object[] = [];
  let each = 0;
  for (const wanted of [50, 250, 1000]) {
    for (const student of students) {
      const more = Array.from({ length: wanted - each }, (_, i) => incident(student, each + i));
      // Each student’s one behavior has the student’s own id.
      const [noise, waiting, pause] = options.get(student) ?? [];
      const named = more.flatMap(({ id: entry_id, student_id }, i): Record<string, unknown>[] => {
        const one = { entry_id, student_id, version: 1, position: 1 };
        return [
          { ...one, facet: 'behavior', target_id: student, option_id: null },
          { ...one, facet: 'antecedent', target_id: null, option_id: i % 2 ? noise : waiting },
          { ...one, facet: 'consequence', target_id: null, option_id: pause },
        ];
      });
      await db.transaction(async (trx) => {
        await trx.batchInsert('entries', more, 500);
        await trx.batchInsert('incident_choices', named, 1000);
      });
    }
    each = wanted;
    await db.raw('analyze entries, incident_choices');
    const firstMs = round(await milliseconds(() => computePatterns({ students, from: '2026-08-31' })));
    const times: number[] = [];
    for (let i = 0; i < 7; i++) times.push(await milliseconds(() => computePatterns({ students, from: '2026-08-31' })));
    const incidents = each * PATTERN_STUDENTS;
    const medianMs = round(at(times, 0.5));
    // The first reads all incidents; the others only ask whether there are new ones.
    results.push({ incidents, firstMs, firstMsPerThousand: round((1000 * firstMs) / incidents), medianMs });
  }
  return { students: PATTERN_STUDENTS, results, atMostMsAt50000: 600 };
}

async function computePatterns({ students, from }: { students: StudentAccess<'see'>[]; from: string }) {
  const incidents = await incidentsAcross(db, students, { discreet: false });
  const days = schoolDays(from, '2026-11-24', { weekdays: [1, 2, 3, 4, 5], closures: [] });
  return patternsAcross(incidents, days, { recentDays: 20 });
}
