// Many at the same moment: each transaction keeps to the one connection that it has.
import { randomUUID } from 'node:crypto';
import { expect, goalId, newestEntry, signInAs, studentId, test } from '../e2e/fixtures';

test('twenty comments at the same moment, and a dozen issued reports, are all answered', async ({ app, page }) => {
  await signInAs(app, page);
  const post = (path: string, body: { data?: object; form?: Record<string, string> }) =>
    page.request
      .post(`${app.url}${path}`, { ...body, headers: { origin: app.url }, maxRedirects: 0, timeout: 30_000 })
      .then((answer) => answer.status());
  const ansel = await studentId(app.db, 'Ansel');
  const entries = await app
    .db('entries')
    .where({ student_id: ansel, withdrawn: false, kind: 'goal' })
    .limit(20)
    .select<{ id: string }[]>('id');
  const comments = entries.map(({ id }) =>
    post(`/students/${ansel}/individual-report`, {
      form: { intent: 'say', id: randomUUID(), entryId: id, text: 'Seen.' },
    }),
  );
  expect(await Promise.all(comments)).toEqual(Array(20).fill(200));

  const mine = await app
    .db('team_members as m')
    .join('people as p', 'p.id', 'm.person_id')
    .where({ 'p.name': 'Hanneke Bruun', 'm.role': 'caseManager' })
    .select<{ student_id: string }[]>('m.student_id');
  const words = { type: 'doc', content: [] };
  const issue = { intent: 'issue', period: '2026-12-04', version: 0, words: { whole: words, goals: {} } };
  const issued = mine.slice(0, 12).map(({ student_id }) =>
    post(`/students/${student_id}/progress-report/2026-12-04`, {
      data: { ...issue, id: randomUUID(), readers: [], replaces: null },
    }),
  );
  expect(new Set(await Promise.all(issued))).toEqual(new Set([302]));
  expect(await app.db('issued_reports')).toHaveLength(issued.length);
  expect((await page.request.get(`${app.url}/health`)).status()).toBe(200);
});

test('a text that cannot be kept is refused at its field, and holds up nothing after it', async ({ app, page }) => {
  await signInAs(app, page);
  const [ansel, goal] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Ansel', '1')];
  const { id: personId } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const outcome = { data: { trials: ['independent'] }, reason: null };
  const save = (note: string) =>
    page.request.post(`${app.url}/students/${ansel}/sessions`, {
      data: {
        personId,
        session: {
          ...{ on: '2026-11-24', time: '09:00', locationId: null, observerId: personId },
          entries: [{ id: randomUUID(), goalId: goal, outcome, note }],
        },
      },
      headers: { origin: app.url },
    });
  for (const note of ['a NUL \0 here', 'half \uD83C of a flower']) {
    const answer = await save(note);
    expect(answer.status()).toBe(422);
    expect(JSON.stringify((await answer.json()).messages)).toContain('cannot be kept');
  }
  expect((await save('A whole 🌱.')).status()).toBe(200);
  // Where a form is no form of ours but plain fields, the database’s own refusal is a 422 too.
  const entry = await newestEntry(app.db, goal);
  const hide = { intent: 'say', id: randomUUID(), entryId: entry!.id, text: 'with \0' };
  const said = await page.request.post(`${app.url}/students/${ansel}/individual-report`, {
    form: hide,
    headers: { origin: app.url },
  });
  expect(said.status()).toBe(422);
});
