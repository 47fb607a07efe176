import type { TeamMembersRow } from '~/server/platform/db/tables';
// Who may do what, as a matrix over every route of the application.

import { randomUUID } from 'node:crypto';
import type { APIRequestContext } from '@playwright/test';
import { rewriting } from '../database/rewriting';
import { addressesOf, pathsOf } from './addresses';
import { expect, goalId, newestEntry, type Staff, signInAs, studentId, test } from './fixtures';

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
  'school/overview': setsUp,
  'school/new-year': setsUp,
  'school/changes': setsUp,
  'school/changes.csv': setsUp,
  'roster/new': setsUp,
  records: setsUp,
  destructions: setsUp,
  'records/:arrivalId': setsUp,
  'students/:studentId/sharing/record': manager,
  'students/:studentId/sharing/record/file': nobody,
  students: everyone,
  account: everyone,
  'account/second-factor': everyone,
  'school/people': setsUp,
  finder: everyone,
  kept: everyone,
  setup: everyone,
  'setup/devices': everyone,
  'incidents/new': everyone,
  imports: everyone,
  'imports/:importId': mine,
  rules: everyone,
  'rules/new': everyone,
  'rules/preview': everyone,
  'rules/:ruleId': mine,
  'follow-ups': everyone,
  'follow-ups.ics': everyone,
  'follow-ups/:followUpId': nobody,
  'students/:studentId/follow-ups': team,
  'students/:studentId/meeting': team,
  'students/:studentId/sharing/share': manager,
  'students/:studentId': team,
  'students/:studentId/edit': setsUp,
  'students/:studentId/individual-report': team,
  'students/:studentId/observe': team,
  'students/:studentId/sessions': nobody,
  rounds: everyone,
  'rounds/new': everyone,
  'rounds/once': nobody,
  'rounds/:roundId': mine,
  'rounds/:roundId/sheet': mine,
  'rounds/:roundId/edit': mine,
  'students/:studentId/next-plan': manager,
  'students/:studentId/goals': manager,
  'students/:studentId/goals/new': manager,
  'students/:studentId/goals/:goalId': team,
  'students/:studentId/goals/:goalId/entries': team,
  'students/:studentId/goals/:goalId/data.csv': team,
  'students/:studentId/goals/:goalId/data.xlsx': team,
  'students/:studentId/goals/:goalId/edit': manager,
  'students/:studentId/goals/:goalId/table': team,
  'students/:studentId/goals/:goalId/sheet': team,
  'students/:studentId/behavior/sheet': team,
  'students/:studentId/entries/:entryId': team,
  'students/:studentId/sharing/links': manager,
  'students/:studentId/sharing': manager,
  'students/:studentId/sharing/visibility': manager,
  'students/:studentId/sharing/access-log': manager,
  'students/:studentId/sharing/access-log.csv': manager,
  'students/:studentId/sharing/access-log.xlsx': manager,
  'students/:studentId/team': manager,
  'students/:studentId/absences': team,
  'students/:studentId/names': nobody,
  'school/visibility': setsUp,
  'students/:studentId/messages/new': manager,
  'students/:studentId/progress-report': team,
  'students/:studentId/progress-report/:period': manager,
  'students/:studentId/progress-report/:period/as/:format': manager,
  'students/:studentId/issued/:issuedId': team,
  'students/:studentId/issued/:issuedId/as/:format': team,
  'students/:studentId/individual-report/as/:format': team,
  'students/:studentId/evidence/:evidenceId': team,
  'students/:studentId/evidence/of/:entryId': team,
  // The goal of the matrix has no rubric.
  'students/:studentId/goals/:goalId/ratings': nobody,
  reports: everyone,
  'reports/several': everyone,
  'batches/:batchId': mine,
  messages: everyone,
  'messages/templates': setsUp,
  'messages/test-mail': setsUp,
  patterns: everyone,
  'patterns.csv': everyone,
  'patterns.xlsx': everyone,
  class: everyone,
  'class/totals.csv': everyone,
  'class/totals.xlsx': everyone,
  'class/goal': everyone,
  'class/works': everyone,
  'class/works/new': everyone,
  // Hanneke's, and Ansel has it.
  'class/works/:workId': team,
  'class/works/:workId/edit': mine,
  'class/works/:workId/projected': team,
  'class/cards': everyone,
  'class/forms': everyone,
  'class/forms/new': everyone,
  // The school's, of Hanneke's making; what is in them is seen by whoever is on the teams.
  'class/forms/:formId': everyone,
  'class/forms/:formId/edit': mine,
  'class/forms/:formId/answers.csv': everyone,
  'class/forms/:formId/answers.xlsx': everyone,
  'class/forms/:formId/students/:studentId': team,
  'class/feedback': everyone,
  'class/feedback/new': everyone,
  'class/feedback/:presentationId': mine,
  'class/feedback/:presentationId/edit': mine,
  'class/work-samples': everyone,
  'class/work-samples/new': everyone,
  'class/work-samples/:stackId': mine,
  'class/work-samples/:stackId/pages': mine,
  'students/:studentId/undo': nobody,
  'students/:studentId/notes': nobody,
  'students/:studentId/notes/new': team,
  'students/:studentId/notes/:noteId': team,
  'students/:studentId/desk': manager,
  'school/choices': setsUp,
  'students/:studentId/incidents/new': team,
  'students/:studentId/counts/new': team,
  'students/:studentId/behavior-entries': nobody,
  'students/:studentId/behavior': team,
  'students/:studentId/behavior/set-up': manager,
  'students/:studentId/behavior/agreement': team,
  'students/:studentId/behavior/:what.csv': team,
  'students/:studentId/behavior/:what.xlsx': team,
  'students/:studentId/incidents': team,
  'students/:studentId/incidents.csv': team,
  'students/:studentId/incidents.xlsx': team,
  'students/:studentId/incidents/:incidentId': team,
  'students/:studentId/counts/:countId': team,
};
/** Open to all by their nature, or only redirecting; each has tests of its own. */
const elsewhere = [
  'sign-in',
  'sign-in/code',
  'sign-in/district',
  'sign-in/district/back',
  'forgotten',
  'account/by/:token',
  'calendar/:token/due-dates.ics',
  'set-up',
  'locked',
  'device',
  'shared/:token',
  'shared/:token/as/:format',
  'shared/:token/evidence/:evidenceId',
  'shared/:token/issued/:issuedId',
  'shared/:token/issued/:issuedId/pdf',
  'invited/:token',
  'rate/:token',
  'stop/:token',
  'desk',
  'desk/in/:token',
  'desk/steps',
  'desk/log',
  'desk/log/:goalId',
  'desk/progress',
  'desk/rate/:workSampleId',
  'desk/note',
  'desk/form/:formId',
  'desk/feedback',
  'desk/feedback/:presentationId',
  'desk/said',
  'seat',
  'seat/feedback',
  'seat/in/:token',
  'stack/:token',
  'stack/:token/:sampleId',
  'stack/:token/:sampleId/file',
  'live',
  'sign-out',
  'preferences',
  'opening',
  'unseal',
  'school/switch',
  '*',
];

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
    const { id: personId } = (await app.db('people').where({ name }).first('id'))!;
    const goal = await goalId(app.db, 'Ansel', '1');
    const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
    const outcome = { data: { trials: ['independent'] }, reason: null };
    const when = { on: '2026-11-24', time: '09:00', locationId: null };

    const entry = { id: randomUUID(), goalId: goal, outcome, note: '' };
    const isStranger = role === 'stranger';
    expect(
      await post('students/:studentId/sessions', {
        data: { personId, session: { ...when, observerId: personId, entries: [entry] } },
      }),
    ).toBe(isStranger ? 404 : 200);

    // Somebody else's entry: only the case manager corrects or withdraws it.
    const others = (await newestEntry(app.db, goal))!.id;
    await rewriting(app.db, (trx) =>
      trx('entries').where({ id: others }).update({ observer_id: hanneke, recorded_by: hanneke }),
    );
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
    const { id: behavior } = (await app
      .db('behavior_choices')
      .where({ kind: 'behavior', name: 'Leaves the bench' })
      .first('id'))!;
    const said = { behaviors: [behavior], antecedents: [], consequences: [], functions: [], note: '', isGoing: false };
    const blank = { locationId: null, intensityId: null, seconds: null, resolved: null, resolvedAfter: null };
    const note = { id: randomUUID(), on: '2026-11-24', time: '09:00', observerId: personId, ...said, ...blank };
    expect(await post('students/:studentId/behavior-entries', { data: { personId, incident: note } })).toBe(
      isStranger ? 404 : 200,
    );
    const noted = { ...note, observerId: hanneke, version: 1, why: 'Counted twice.' };
    await rewriting(app.db, (trx) => trx('entries').update({ observer_id: hanneke, recorded_by: hanneke }));
    expect(await post('students/:studentId/incidents/:incidentId', { data: { intent: 'correct', ...noted } })).toBe(
      status,
    );
    expect(
      await post('students/:studentId/counts/:countId', { data: { intent: 'withdraw', version: 1, why: 'Twice.' } }),
    ).toBe(status);
    const editGoals = { caseManager: 400, stranger: 404 }[role] ?? 404;
    expect(
      await post('students/:studentId/behavior/set-up', { form: { intent: 'choices', 'behavior[0].id': 'x' } }),
    ).toBe(editGoals);
    expect(await post('students/:studentId/behavior', { form: { label: '' } })).toBe(editGoals);

    const share = { id: randomUUID(), readerName: 'Aunt', kind: 'family', endsOn: '2026-12-24' };
    expect(await post('students/:studentId/sharing/links', { form: share })).toBe(role === 'caseManager' ? 200 : 404);
    expect(await post('students/:studentId/sharing/links', { form: { intent: 'withdraw', id: share.id } })).toBe(
      role === 'caseManager' ? 200 : 404,
    );
    expect(await app.db('share_links').where({ id: share.id })).toHaveLength(role === 'caseManager' ? 1 : 0);
  });
}

type Needed = 'read' | 'see' | 'observe' | 'editGoals' | 'share' | 'manage' | 'carryOut' | 'anyWriting' | 'nobody';

/** What it takes to open each address of a student, and to send something there; null where nothing can be sent. */
const needed: Record<string, [open: Needed, send: Needed | null]> = {
  '': ['see', null],
  '/edit': ['editGoals', 'editGoals'],
  '/individual-report': ['read', 'read'],
  '/observe': ['observe', null],
  '/absences': ['see', 'observe'],
  '/follow-ups': ['see', 'observe'],
  '/meeting': ['see', null],
  '/desk': ['share', 'share'],
  '/sessions': ['nobody', 'observe'],
  '/next-plan': ['editGoals', 'editGoals'],
  '/goals': ['editGoals', 'editGoals'],
  '/goals/new': ['editGoals', 'editGoals'],
  '/goals/:goalId': ['see', null],
  '/goals/:goalId/entries': ['see', null],
  '/goals/:goalId/data.csv': ['see', null],
  '/goals/:goalId/data.xlsx': ['see', null],
  '/goals/:goalId/edit': ['editGoals', 'editGoals'],
  '/goals/:goalId/table': ['observe', 'observe'],
  '/goals/:goalId/sheet': ['observe', null],
  '/goals/:goalId/ratings': ['nobody', 'nobody'],
  '/entries/:entryId': ['see', 'see'],
  '/sharing/links': ['share', 'share'],
  '/sharing': ['share', null],
  '/sharing/share': ['share', 'share'],
  '/sharing/visibility': ['share', 'share'],
  '/sharing/access-log': ['share', null],
  '/sharing/access-log.csv': ['share', null],
  '/sharing/access-log.xlsx': ['share', null],
  '/sharing/record': ['carryOut', 'carryOut'],
  '/sharing/record/file': ['nobody', 'carryOut'],
  '/team': ['share', 'manage'],
  '/names': ['nobody', 'anyWriting'],
  '/messages/new': ['share', 'share'],
  '/progress-report': ['read', null],
  '/progress-report/:period': ['share', 'share'],
  '/progress-report/:period/as/:format': ['share', null],
  '/issued/:issuedId': ['read', 'share'],
  '/issued/:issuedId/as/:format': ['read', null],
  '/individual-report/as/:format': ['read', null],
  '/evidence/:evidenceId': ['read', null],
  '/evidence/of/:entryId': ['see', 'observe'],
  '/incidents/new': ['observe', null],
  '/counts/new': ['observe', null],
  '/undo': ['nobody', 'observe'],
  '/notes': ['nobody', 'observe'],
  '/notes/new': ['observe', null],
  '/notes/:noteId': ['see', 'see'],
  '/behavior-entries': ['nobody', 'observe'],
  '/behavior': ['see', 'editGoals'],
  '/behavior/set-up': ['editGoals', 'editGoals'],
  '/behavior/agreement': ['see', null],
  '/behavior/sheet': ['observe', null],
  '/behavior/:what.csv': ['see', null],
  '/behavior/:what.xlsx': ['see', null],
  '/incidents': ['see', null],
  '/incidents.csv': ['see', null],
  '/incidents.xlsx': ['see', null],
  '/incidents/:incidentId': ['see', 'see'],
  '/counts/:countId': ['see', 'see'],
};

const writes = ['observe', 'editGoals', 'share'] as const;
const all = ['read', 'see', ...writes, 'manage', 'carryOut', 'anyWriting'] as const;
/** Members to whom something was granted, or nothing, or not any more; and what that comes to. */
const members: Record<string, { change: Partial<TeamMembersRow>; may: readonly Needed[]; isArchived?: boolean }> = {
  'a member who may observe': { change: { rights: ['observe'] }, may: ['read', 'see', 'observe', 'anyWriting'] },
  'a member who may edit goals': { change: { rights: ['editGoals'] }, may: ['read', 'see', 'editGoals', 'anyWriting'] },
  'a member who may share': { change: { rights: ['share'] }, may: ['read', 'see', 'share', 'carryOut', 'anyWriting'] },
  'a member who may do all three': {
    change: { rights: [...writes] },
    may: ['read', 'see', ...writes, 'carryOut', 'anyWriting'],
  },
  'a member who only reads': { change: { rights: [] }, may: ['read'] },
  'a member whose time is over': { change: { rights: [...writes], until_date: '2026-11-23' }, may: [] },
  'a member whose time has not begun': { change: { rights: [...writes], from_date: '2026-11-25' }, may: [] },
  'the case manager of a student who is archived': {
    ...{ change: { role: 'caseManager' }, isArchived: true },
    // The record is read, and nothing is added to it.
    may: ['read', 'see', 'carryOut'],
  },
  'the case manager': { change: { role: 'caseManager' }, may: all },
};

test('the matrix of granted rights names every address of a student', async () => {
  const { default: routes } = await import('~/web/routes');
  const ofStudent = pathsOf(await routes).flatMap((path) =>
    path.startsWith('students/:studentId') ? [path.slice('students/:studentId'.length)] : [],
  );
  expect(ofStudent.sort()).toEqual(Object.keys(needed).sort());
});

for (const [who, { change, may, isArchived }] of Object.entries(members)) {
  test(`what ${who} gets, and what is refused`, async ({ app, page }) => {
    await signInAs(app, page, 'Lotte Varga');
    const addressOf = await addressesOf(app);
    const student = await studentId(app.db, 'Ansel');
    const { id: lotte } = (await app.db('people').where({ name: 'Lotte Varga' }).first('id'))!;
    // There is one case manager at a time.
    if (change.role === 'caseManager') {
      await app.db('team_members').where({ student_id: student, role: 'caseManager' }).update({ role: 'educator' });
    }
    await app.db('team_members').where({ student_id: student, person_id: lotte }).update(change);
    if (isArchived) await app.db('students').where({ id: student }).update({ archived_at: new Date() });
    const before = await app.db('team_members').where({ student_id: student }).orderBy('person_id');
    for (const [path, [open, send]] of Object.entries(needed)) {
      const address = addressOf(`students/:studentId${path}`);
      expect((await get(page.request, address)).status, `open ${path}`).toBe(may.includes(open) ? 200 : 404);
      if (send === null) continue;
      // What is sent is nothing that could be kept: who may is told so, to who may not there is nothing.
      for (const body of [{ form: { intent: 'nonsense' } }, { data: { intent: 'nonsense' } }]) {
        const answer = await page.request.post(address, { ...body, headers: { origin: app.url }, maxRedirects: 0 });
        const said = `send to ${path}: ${answer.status()}`;
        if (may.includes(send)) expect([200, 400, 422], said).toContain(answer.status());
        else expect(answer.status(), said).toBe(404);
      }
    }
    expect(await app.db('team_members').where({ student_id: student }).orderBy('person_id')).toEqual(before);
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
  const entry = (await newestEntry(app.db, emrys))!.id;
  const emryses = await studentId(app.db, 'Emrys');
  const { id: note } = (await app.db('entries').where({ student_id: ansel, kind: 'incident' }).first('id'))!;
  const addresses = [
    '/students/not-an-id',
    `/students/${randomUUID()}`,
    `/students/${ansel}/goals/${marlows}`,
    `/students/${ansel}/goals/${emrys}`,
    `/students/${ansel}/goals/%00`,
    `/students/${ansel}/entries/${entry}`,
    `/students/${ansel}/entries/1%27--`,
    `/students/${emryses}/incidents/${note}`,
    `/students/${ansel}/incidents/not-an-id`,
    `/students/${ansel}/counts/${randomUUID()}`,
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
