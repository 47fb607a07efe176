// A colleague who may edit goals makes themself case manager; an inviter keeps a key to somebody else's account.
import { randomUUID } from 'node:crypto';
import { type App, expect, signInAs, studentId, test } from '../e2e/fixtures';

const idOf = async (app: App, name: string) => (await app.db('people').where({ name }).first('id'))!.id as string;

test('whoever edits goals of a student does not become its case manager, and the one there is stays', async ({
  app,
  page,
}) => {
  const [ansel, lotte, hanneke] = await Promise.all([
    studentId(app.db, 'Ansel'),
    idOf(app, 'Lotte Varga'),
    idOf(app, 'Hanneke Bruun'),
  ]);
  await app
    .db('team_members')
    .where({ student_id: ansel, person_id: lotte })
    .update({ rights: ['observe', 'editGoals'] });
  await signInAs(app, page, 'Lotte Varga');
  const take = async (caseManagerId: string) =>
    page.request.post(`${app.url}/students/${ansel}/edit`, {
      form: { intent: 'student', id: ansel, firstName: 'Ansel', lastName: 'Dorsey', grade: 'Grade 4', caseManagerId },
      headers: { origin: app.url },
      maxRedirects: 0,
    });
  const refused = await take(lotte);
  expect(refused.status()).toBe(400);
  expect(await refused.text()).toContain('Only the case manager');
  expect(await app.db('team_members').where({ student_id: ansel, role: 'caseManager' }).select('person_id')).toEqual([
    { person_id: hanneke },
  ]);
  for (const path of ['ways-in', 'team', 'readings', 'readers']) {
    expect((await page.request.get(`${app.url}/students/${ansel}/${path}`)).status(), path).toBe(404);
  }
  // Handed on by who may, it is written down, with who it was before.
  await signInAs(app, page, 'Hanneke Bruun');
  expect((await take(lotte)).status()).toBe(200);
  const [written] = await app.db('changes').where({ student_id: ansel, what: 'case manager' });
  expect(written).toMatchObject({ before: { personId: hanneke }, after: { personId: lotte }, changed_by: hanneke });
});

test('whoever invited first has no way to a student that somebody else invites the same address to', async ({
  app,
  page,
  playwright,
}) => {
  const email = 'vera@home.example';
  const invite = async (student: string) => {
    const form = {
      intent: 'invite',
      id: randomUUID(),
      name: 'Vera',
      email,
      role: 'specialist',
      'rights[0]': 'observe',
    };
    const path = `${app.url}/students/${student}/team`;
    const answer = await page.request.post(path, { form, headers: { origin: app.url } });
    expect(answer.status()).toBe(200);
    return { id: form.id, text: await answer.text() };
  };
  await signInAs(app, page, 'Hanneke Bruun');
  const first = await invite(await studentId(app.db, 'Ansel'));
  const link = /\/invited\/[\w-]{43}/.exec(first.text)?.[0] as string;

  // The inviter opens the link and makes the account in Vera's name.
  const inviter = await playwright.request.newContext({ baseURL: app.url, extraHTTPHeaders: { origin: app.url } });
  const account = { name: 'Vera', work: '', password: 'known to the inviter', again: 'known to the inviter' };
  expect((await inviter.post(link, { form: account, maxRedirects: 0 })).status()).toBe(302);

  // Somebody else invites her to another student.
  await signInAs(app, page, 'Samir Tadesse');
  const { id: others } = await app
    .db('students as s')
    .join('team_members as m', 'm.student_id', 's.id')
    .join('people as p', 'p.id', 'm.person_id')
    .where({ 'p.name': 'Samir Tadesse', 'm.role': 'caseManager' })
    .first('s.id');
  const second = await invite(others);
  const read = async () => (await inviter.get(`/students/${others}/individual-report`, { maxRedirects: 0 })).status();
  expect(await read()).toBe(404);
  const join = await inviter.post('/account', { form: { intent: 'join', id: second.id }, maxRedirects: 0 });
  expect(join.status()).toBe(404);
  expect(await (await inviter.get('/account')).text()).not.toContain('asks you to join');
  expect(await read()).toBe(404);
});
