// Every address of the application, with something at each of them.
import { randomUUID } from 'node:crypto';
import type { RouteConfigEntry } from '@react-router/dev/routes';
import JSZip from 'jszip';
import { schoolOf } from '~/server/school/school';
import { readOut } from '~/server/student-record/read-out';
import { accessTo } from '../database/small-school';
import { clock } from './demo-template';
import { type App, goalId, newestEntry, schoolId, studentId } from './fixtures';

/** The paths of all routes that have one. */
export function pathsOf(routes: RouteConfigEntry[]): string[] {
  return routes.flatMap((route) => (route.children ? pathsOf(route.children) : [route.path ?? '']));
}

/** Makes what the addresses lead to, and gives the address of a path. */
export async function addressesOf(app: App) {
  const goal = await goalId(app.db, 'Ansel', '1');
  const entry = await newestEntry(app.db, goal);
  const student = await studentId(app.db, 'Ansel');
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const round = { id: randomUUID(), name: 'Tuesday workshop', made_by: hanneke, school_id: await schoolId(app.db) };
  await app.db('rounds').insert(round);
  await app.db('round_goals').insert({ round_id: round.id, goal_id: goal, student_id: student, position: 0 });
  const { id: incidentId } = (await app.db('entries').where({ student_id: student, kind: 'incident' }).first('id'))!;
  const whose = { student_id: student, observer_id: hanneke, recorded_by: hanneke, recorded_at: new Date() };
  const { id: behavior } = (await app
    .db('behavior_choices')
    .where({ student_id: student, kind: 'behavior' })
    .first('id'))!;
  const counted = {
    kind: 'count' as const,
    target_id: behavior,
    observed_on: '2026-11-24',
    observed_time: '09:00',
    minutes: 30,
    count: 0,
    note: '',
  };
  const count = { id: randomUUID(), ...whose, ...counted };
  await app.db('entries').insert(count);
  const report = await reportRows(app, { student, entry: entry!.id, hanneke });
  const ids = {
    ...report,
    studentId: student,
    goalId: goal,
    entryId: entry!.id,
    roundId: round.id,
    incidentId,
    countId: count.id,
    workId: (await app.db('works').first('id'))!.id,
    ruleId: (await app.db('rules').where({ made_by: hanneke }).first('id'))!.id,
    followUpId: (await app.db('follow_ups').first('id'))!.id,
    importId: await fileOf(app, hanneke),
    arrivalId: await recordOf(app, { student, hanneke }),
    ...(await formRows(app, { student, hanneke })),
  };
  return (path: string) => `/${path.replace(/:(\w+)/g, (_, name: keyof typeof ids) => ids[name])}`;
}

/** A record that arrived and was not read in yet. */
async function recordOf(app: App, { student, hanneke }: Record<'student' | 'hanneke', string>): Promise<string> {
  const id = randomUUID();
  const school = await schoolOf(app.db, await schoolId(app.db));
  const zip = new JSZip();
  const fileOf = (_: string, type: string) => {
    const path = `files/1.${type === 'application/pdf' ? 'pdf' : 'jpg'}`;
    zip.file(path, 'x');
    return path;
  };
  const record = await readOut(app.db, accessTo(student), { school, now: new Date(clock), fileOf });
  zip.file('record.json', JSON.stringify(record));
  const archive = await zip.generateAsync({ type: 'nodebuffer' });
  await app.db('record_arrivals').insert({
    ...{ id, school_id: school.id, file_name: 'record.zip', archive, source_id: student, made_by: hanneke },
    made_at: new Date(clock),
  });
  return id;
}

/** A file that Hanneke has handed over and not imported yet. */
async function fileOf(app: App, hanneke: string): Promise<string> {
  const id = randomUUID();
  const rows = [
    ['Ansel Dorsey', '1', '2026-11-02', '3/5', ''],
    ['Ansel Dorsey', '9', 'soon', '3/5', 'a long remark '.repeat(9)],
  ];
  const table = { name: 'class.csv', head: ['Student', 'Goal', 'Date', 'Score', 'Notes'], rows, firstRow: 2 };
  const made = { made_by: hanneke, made_at: new Date(), school_id: await schoolId(app.db) };
  await app.db('imports').insert({
    ...{ id, kind: 'entries', file_name: 'class.csv', ...made },
    content: JSON.stringify({ is: 'tables', tables: [table] }),
    mapping: JSON.stringify({ columns: ['student', 'goal', 'on', 'score', 'note'] }),
  });
  return id;
}

/** A note by the school's form, and what else is answered and rated by several. */
async function formRows(app: App, { student, hanneke }: Record<'student' | 'hanneke', string>) {
  const { id: formId } = (await app.db('forms').where({ side: 'staff' }).first('id'))!;
  const noteId = randomUUID();
  await app.db('entries').insert({
    ...{ id: noteId, student_id: student, kind: 'note', form_id: formId, form_version: 1, answers: {}, note: '' },
    ...{ observed_on: '2026-11-24', observed_time: '09:00', observer_id: hanneke, recorded_by: hanneke },
    recorded_at: new Date(),
  });
  const { id: presentationId } = (await app.db('presentations').first('id'))!;
  const { id: stackId } = (await app.db('stacks').first('id'))!;
  return { formId, noteId, presentationId, stackId };
}

/** An issued report, a picture and the papers of a group, as rows. */
async function reportRows(app: App, { student, entry, hanneke }: Record<'student' | 'entry' | 'hanneke', string>) {
  const [issuedId, evidenceId, batchId] = [randomUUID(), randomUUID(), randomUUID()];
  const whole = { type: 'doc', content: [] };
  const content = {
    student: { name: 'Ansel Dorsey', shortName: 'Ansel D.', grade: 'Grade 4', groups: [] },
    ...{ schoolName: 'x', caseManager: 'x', plan: { startsOn: '2026-09-08', endsOn: '2027-06-11' } },
    ...{ period: { label: 'Quarter 1', from: '2026-09-08', to: '2026-12-04' }, goals: [], behavior: [], words: whole },
  };
  const { id: period } = await app
    .db('reporting_periods as r')
    .join('plans as p', 'p.id', 'r.plan_id')
    .where({ 'p.student_id': student, 'r.ends_on': '2026-12-04' })
    .first('r.id');
  await app.db('issued_reports').insert({
    period_id: period,
    ...{ id: issuedId, student_id: student, number: 1, period_label: 'Quarter 1', period_from: '2026-09-08' },
    ...{ period_to: '2026-12-04', content, readers: [], issued_by: hanneke, issued_at: new Date() },
  });
  await app.db('evidence').insert({
    ...{ id: evidenceId, student_id: student, entry_id: entry, name: 'plan.pdf', type: 'application/pdf' },
    ...{ bytes: 1, content: Buffer.from('x'), added_by: hanneke, added_at: new Date() },
  });
  const made = { school_id: await schoolId(app.db), made_by: hanneke, made_at: new Date(), state: 'ready' as const };
  await app
    .db('document_batches')
    .insert({ id: batchId, label: 'All', students: ['Ansel D.'], what: 'running' as const, ...made });
  const document = JSON.stringify({ title: 'All', head: 'All', blocks: [] });
  await app
    .db('document_batch_parts')
    .insert({ batch_id: batchId, student_id: student, position: 0, pages: 1, document });
  return { issuedId, evidenceId, batchId, format: 'csv', what: 'timetable', period: '2026-12-04' };
}
