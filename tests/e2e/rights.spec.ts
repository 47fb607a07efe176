// Who may do what, as a matrix over every route of the application.
import { randomUUID } from 'node:crypto';
import type { APIRequestContext } from '@playwright/test';
import type { RouteConfigEntry } from '@react-router/dev/routes';
import { type App, expect, goalId, newestEntry, type Staff, signInAs, studentId, test } from './fixtures';

/** One person in each role on Ansel's team, and one who is not on it. */
const people: Record<string, Staff> = {
  caseManager: 'Hanneke Bruun',
  educator: 'Lotte Varga',
  paraprofessional: 'Noor Haddad',
  specialist: 'Maeve Rourke',
  stranger: 'Samir Tadesse',
};
const everyone = { caseManager: 200, educator: 200, paraprofessional: 200, specialist: 200, stranger: 200 };
const team = { ...everyone, stranger: 404 };
/** Hanneke and Samir set up the school. */
const setsUp = { caseManager: 200, educator: 404, paraprofessional: 404, specialist: 404, stranger: 200 };
const manager = { caseManager: 200, educator: 404, paraprofessional: 404, specialist: 404, stranger: 404 };

const nobody = { caseManager: 404, educator: 404, paraprofessional: 404, specialist: 404, stranger: 404 };
/** The round of the matrix is Hanneke's. */
const mine = { ...nobody, caseManager: 200 };

/** What a signed-in person gets for each address of `web/routes.ts`. */
const expected: Record<string, Record<string, number>> = {
  '': everyone,
  team: everyone,
  school: setsUp,
  roster: setsUp,
  'roster/new': setsUp,
  students: everyone,
  account: everyone,
  finder: everyone,
  'students/:studentId': team,
  'students/:studentId/edit': setsUp,
  'students/:studentId/report': team,
  'students/:studentId/observe': team,
  'students/:studentId/sessions': nobody,
  rounds: everyone,
  'rounds/new': everyone,
  'rounds/once': nobody,
  'rounds/:roundId': mine,
  'rounds/:roundId/edit': mine,
  'students/:studentId/goals': manager,
  'students/:studentId/goals/new': manager,
  'students/:studentId/goals/:goalId': team,
  'students/:studentId/goals/:goalId/entries': team,
  'students/:studentId/goals/:goalId/edit': manager,
  'students/:studentId/goals/:goalId/table': team,
  'students/:studentId/entries/:entryId': team,
  'students/:studentId/ways-in': manager,
  'students/:studentId/readers': manager,
  'students/:studentId/readers/rules': manager,
  'students/:studentId/readings': manager,
  'students/:studentId/readings.csv': manager,
  'students/:studentId/team': manager,
  'students/:studentId/names': nobody,
  'school/readers': setsUp,
  'students/:studentId/write': manager,
  'students/:studentId/progress': team,
  'students/:studentId/progress/:period': manager,
  'students/:studentId/progress/:period/as/:format': manager,
  'students/:studentId/issued/:issuedId': team,
  'students/:studentId/issued/:issuedId/as/:format': team,
  'students/:studentId/report/as/:format': team,
  'students/:studentId/evidence/:evidenceId': team,
  'students/:studentId/evidence/of/:entryId': team,
  // The goal of the matrix has no rubric.
  'students/:studentId/goals/:goalId/ratings': nobody,
  reports: everyone,
  'batches/:batchId': mine,
  post: everyone,
  'post/wordings': setsUp,
  'post/carrier': setsUp,
  patterns: everyone,
  'school/choices': setsUp,
  'students/:studentId/note': team,
  'students/:studentId/tally': team,
  'students/:studentId/caught': nobody,
  'students/:studentId/behavior': team,
  'students/:studentId/behavior/set-up': manager,
  'students/:studentId/behavior/agreement': team,
  'students/:studentId/notes': team,
  'students/:studentId/notes.csv': team,
  'students/:studentId/notes/:noteId': team,
  'students/:studentId/tallies/:tallyId': team,
};
/** Open to all by their nature, or only redirecting; each has tests of its own. */
const elsewhere = [
  'sign-in',
  'read/:token',
  'read/:token/evidence/:evidenceId',
  'read/:token/issued/:issuedId',
  'read/:token/issued/:issuedId/pdf',
  'invited/:token',
  'rate/:token',
  'stop/:token',
  'sign-out',
  'preferences',
  '*',
];

function pathsOf(routes: RouteConfigEntry[]): string[] {
  return routes.flatMap((route) => (route.children ? pathsOf(route.children) : [route.path ?? '']));
}

async function addressesOf(app: App) {
  const goal = await goalId(app.db, 'Ansel', '1');
  const entry = await newestEntry(app.db, goal);
  const student = await studentId(app.db, 'Ansel');
  const { id: hanneke } = await app.db('people').where({ name: 'Hanneke Bruun' }).first('id');
  const round = { id: randomUUID(), name: 'Tuesday workshop', made_by: hanneke };
  await app.db('rounds').insert(round);
  await app.db('round_goals').insert({ round_id: round.id, goal_id: goal, student_id: student, position: 0 });
  const { id: noteId } = await app.db('abc_notes').where({ student_id: student }).first('id');
  const whose = { student_id: student, observer_id: hanneke, recorded_by: hanneke, recorded_at: new Date() };
  const [{ id: behavior }] = await app.db('behavior_choices').where({ student_id: student, kind: 'behavior' });
  const counted = {
    behavior_id: behavior,
    observed_on: '2026-11-24',
    observed_time: '09:00',
    minutes: 30,
    count: 0,
    note: '',
  };
  const tally = { id: randomUUID(), ...whose, ...counted };
  await app.db('tallies').insert(tally);
  const report = await reportRows(app, { student, entry: entry.id, hanneke });
  const ids = {
    ...report,
    studentId: student,
    goalId: goal,
    entryId: entry.id,
    roundId: round.id,
    noteId,
    tallyId: tally.id,
  };
  return (path: string) => `/${path.replace(/:(\w+)/g, (_, name: keyof typeof ids) => ids[name])}`;
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
  await app.db('issued_reports').insert({
    ...{ id: issuedId, student_id: student, number: 1, period_label: 'Quarter 1', period_from: '2026-09-08' },
    ...{ period_to: '2026-12-04', content, made_from: {}, readers: [], issued_by: hanneke, issued_at: new Date() },
  });
  await app.db('evidence').insert({
    ...{ id: evidenceId, student_id: student, entry_id: entry, name: 'plan.pdf', type: 'application/pdf' },
    ...{ bytes: 1, content: Buffer.from('x'), added_by: hanneke, added_at: new Date() },
  });
  const made = { made_by: hanneke, made_at: new Date(), state: 'ready', file: Buffer.from('x') };
  await app.db('batches').insert({ id: batchId, label: 'All', what: 'running', ...made });
  return { issuedId, evidenceId, batchId, format: 'csv', period: '2026-12-04' };
}

test('the matrix names every route there is', async () => {
  const { default: routes } = await import('~/web/routes');
  expect(pathsOf(await routes).sort()).toEqual([...Object.keys(expected), ...elsewhere].sort());
});

for (const [role, name] of Object.entries(people)) {
  test(`what a ${role} gets from each address, and may send`, async ({ app, page }) => {
    await signInAs(app, page, name);
    const addressOf = await addressesOf(app);
    for (const [path, statuses] of Object.entries(expected)) {
      const { status } = await get(page.request, addressOf(path));
      expect(status, path).toBe(statuses[role]);
    }
    const post = (path: string, body: { data?: object; form?: Record<string, string> }) =>
      page.request
        .post(addressOf(path), { ...body, headers: { origin: app.url }, maxRedirects: 0 })
        .then((r) => r.status());
    const { id: personId } = await app.db('people').where({ name }).first('id');
    const goal = await goalId(app.db, 'Ansel', '1');
    const { id: hanneke } = await app.db('people').where({ name: 'Hanneke Bruun' }).first('id');
    const outcome = { data: { trials: ['independent'] }, reason: null };
    const when = { on: '2026-11-24', time: '09:00', settingId: null };

    const entry = { id: randomUUID(), goalId: goal, outcome, note: '' };
    const isStranger = role === 'stranger';
    expect(
      await post('students/:studentId/sessions', {
        data: { personId, session: { ...when, observerId: personId, entries: [entry] } },
      }),
    ).toBe(isStranger ? 404 : 200);

    // Somebody else's entry: only the case manager corrects or withdraws it.
    const others = (await newestEntry(app.db, goal)).id;
    await app.db('observations').where({ id: others }).update({ observer_id: hanneke, recorded_by: hanneke });
    const status = { caseManager: 200, stranger: 404 }[role] ?? 403;
    const change = { version: 1, why: 'Counted twice.' };
    const path = `students/:studentId/entries/${others}`;
    expect(
      await post(path, { data: { intent: 'correct', ...change, ...when, observerId: hanneke, outcome, note: '' } }),
    ).toBe(status);
    expect(await post(path, { data: { intent: 'withdraw', ...change, version: role === 'caseManager' ? 2 : 1 } })).toBe(
      status,
    );

    // Behavior: whoever observes catches, the others' notes are the case manager's to change, what is noted too.
    const { id: behavior } = await app
      .db('behavior_choices')
      .where({ kind: 'behavior', name: 'Leaves the bench' })
      .first('id');
    const said = { behaviors: [behavior], antecedents: [], consequences: [], functions: [], note: '', isGoing: false };
    const blank = { settingId: null, intensityId: null, seconds: null, resolved: null, resolvedAfter: null };
    const note = { id: randomUUID(), on: '2026-11-24', time: '09:00', observerId: personId, ...said, ...blank };
    expect(await post('students/:studentId/caught', { data: { personId, note } })).toBe(isStranger ? 404 : 200);
    const noted = { ...note, observerId: hanneke, version: 1, why: 'Counted twice.' };
    await app.db('abc_notes').update({ observer_id: hanneke, recorded_by: hanneke });
    expect(await post('students/:studentId/notes/:noteId', { data: { intent: 'correct', ...noted } })).toBe(status);
    expect(
      await post('students/:studentId/tallies/:tallyId', { data: { intent: 'withdraw', version: 1, why: 'Twice.' } }),
    ).toBe(status);
    const setUp = { caseManager: 400, stranger: 404 }[role] ?? 404;
    expect(
      await post('students/:studentId/behavior/set-up', { form: { intent: 'choices', 'behavior[0].id': 'x' } }),
    ).toBe(setUp);
    expect(await post('students/:studentId/behavior', { form: { label: '' } })).toBe(setUp);

    const share = { id: randomUUID(), readerName: 'Aunt', kind: 'family', endsOn: '2026-12-24' };
    expect(await post('students/:studentId/ways-in', { form: share })).toBe(role === 'caseManager' ? 200 : 404);
    expect(await post('students/:studentId/ways-in', { form: { intent: 'withdraw', id: share.id } })).toBe(
      role === 'caseManager' ? 200 : 404,
    );
    expect(await app.db('share_links').where({ id: share.id })).toHaveLength(role === 'caseManager' ? 1 : 0);
  });
}

test('nobody gets anything without signing in, and a data request tells no more than the page', async ({
  app,
  page,
}) => {
  const addressOf = await addressesOf(app);
  for (const path of Object.keys(expected)) {
    expect((await get(page.request, addressOf(path))).status, path).toBe(302);
    if (path === '') continue;
    const { status, text } = await get(page.request, `${addressOf(path)}.data`);
    expect(status, path).toBe(202);
    expect(text).not.toContain('Ansel');
  }
});

test('foreign and malformed ids are a 404, and one’s own student does not open another’s goal or entry', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const [ansel, marlows, emrys] = [
    await studentId(app.db, 'Ansel'),
    await goalId(app.db, 'Marlow', '1'),
    await goalId(app.db, 'Emrys', '2'),
  ];
  const entry = (await newestEntry(app.db, emrys)).id;
  const emryses = await studentId(app.db, 'Emrys');
  const { id: note } = await app.db('abc_notes').where({ student_id: ansel }).first('id');
  const addresses = [
    '/students/not-an-id',
    `/students/${randomUUID()}`,
    `/students/${ansel}/goals/${marlows}`,
    `/students/${ansel}/goals/${emrys}`,
    `/students/${ansel}/goals/%00`,
    `/students/${ansel}/entries/${entry}`,
    `/students/${ansel}/entries/1%27--`,
    `/students/${emryses}/notes/${note}`,
    `/students/${ansel}/notes/not-an-id`,
    `/students/${ansel}/tallies/${randomUUID()}`,
    '/nowhere/at/all',
  ];
  for (const address of addresses) expect((await get(page.request, address)).status, address).toBe(404);
  await page.goto(`/students/${randomUUID()}`);
  await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'To the students' })).toBeVisible();
});

async function get(request: APIRequestContext, address: string) {
  const answer = await request.get(address, { maxRedirects: 0 });
  return { status: answer.status(), text: await answer.text() };
}
