// What stands around every page: the finder, the keys, the tabs, the discreet view, the theme, security, failures.

import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import JSZip from 'jszip';
import Papa from 'papaparse';
import { rewriting } from '../database/rewriting';
import { type App, expect, expectToast, goalId, schoolId, settled, signInAs, studentId, test } from './fixtures';
import { startServer } from './server';

test('the finder takes letters from the first moment, and Enter means what was typed', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/students');
  await settled(page);
  // What it finds comes late, as over a bad network.
  await page.route(/\/finder/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 700));
    await route.continue();
  });
  await page.keyboard.press('/');
  await page.keyboard.type('fenna', { delay: 0 });
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Fenna O.');
  // Nothing was typed: nothing is opened.
  await page.keyboard.press('/');
  const finder = page.getByRole('dialog', { name: 'Find a student or goal' });
  await expect(finder.getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(finder).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(finder).toHaveCount(0);
});

test('the finder leads to a student or a goal by a few letters', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/students');
  await settled(page);
  await page.keyboard.press('/');
  const finder = page.getByRole('dialog', { name: 'Find a student or goal' });
  await finder.getByRole('combobox').fill('coins');
  await expect(finder.getByRole('option')).toHaveCount(2);
  await finder.getByRole('combobox').fill('coins fenna');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Counts coins' })).toBeVisible();
  await page.keyboard.press('/');
  await finder.getByRole('combobox').fill('zzzz');
  await expect(finder.getByText('Nothing found.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(finder).toHaveCount(0);
});

test('single keys can be switched off; Enter goes on saving', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/account');
  await settled(page);
  await page.getByRole('form', { name: 'Keyboard shortcuts' }).getByRole('button', { name: 'Off' }).click();
  await expect(
    page.getByRole('form', { name: 'Keyboard shortcuts' }).getByRole('button', { name: 'Off' }),
  ).toHaveAttribute('aria-pressed', 'true');
  await page.goto(`/students/${await studentId(app.db, 'Jory')}/observe`);
  await settled(page);
  await expect(page.locator('kbd:visible')).toHaveCount(0);
  await page.keyboard.press('1');
  await page.keyboard.press('/');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: 'Independent', exact: true }).first().click();
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Jory: 1 goal.');
  const [entry] = await app.db('entries').orderBy('recorded_at', 'desc').limit(1);
  expect(entry!.data).toEqual({ trials: ['independent'] });
});

test('? shows the keys, O observes, a tab changes the student and keeps the view', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/individual-report`);
  await settled(page);
  // As on a real keyboard, where the question mark needs Shift.
  await page.keyboard.press('Shift+?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('take the last one back');
  await page.keyboard.press('Escape');
  await page.getByRole('navigation', { name: 'Students, by tab' }).getByRole('link', { name: 'Briar Q.' }).click();
  await expect(page).toHaveURL(new RegExp(`/students/${await studentId(app.db, 'Briar')}/individual-report$`));
  await expect(page.getByRole('heading', { name: 'Briar Q.' })).toBeVisible();
  await page.keyboard.press('o');
  await expect(page.getByRole('heading', { name: 'Observing Briar Q.' })).toBeVisible();
});

test('the discreet view leaves no name on any screen, nor in the page’s source or title', async ({ app, page }) => {
  await rewriting(app.db, (trx) => trx('entries').update({ note: 'Ansel laughed.' }));
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Ansel', '2b')];
  const { id } = (await app.db('entries').where({ goal_id: goal }).first('id'))!;
  const more = await sayNames(app, student, id);
  await page.goto('/students');
  await settled(page);
  // The switch shows what was asked for at once; the cookie comes with the answer.
  const answered = page.waitForResponse((answer) => answer.request().method() === 'POST');
  await page.getByRole('button', { name: 'Discreet off' }).click();
  await (await answered).finished();
  await expect(page.getByRole('button', { name: 'Discreet on' })).toBeVisible();
  const views = ['', '/individual-report', '/observe', '/sharing/links', `/goals/${goal}`, `/entries/${id}`].map(
    (view) => `/students/${student}${view}`,
  );
  for (const view of ['/students', '/finder', '/', '/reports', '/reports/several', '/roster', ...views, ...more]) {
    const source = await (await page.request.get(view)).text();
    expect(source, view).not.toMatch(/Ansel|Dorsey|Briar|Asks for a pause|pause card|laughed|ida@home|Aunt Ida/);
  }
  await page.goto(`/students/${student}/goals/${goal}`);
  await expect(page.getByRole('heading', { name: 'Goal 2b' })).toBeVisible();
  await expect(page).toHaveTitle('2b · AD · Gentle Margin');
});

/** Names wherever there are words: a reader’s address, messages, a draft, an issued report, a count, a file. Where they would show. */
async function sayNames(app: App, student: string, entry: string): Promise<string[]> {
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  await app.db('follow_ups').update({ what: 'Ansel laughed' });
  const { id: rule } = (await app.db('rule_versions').where({ name: 'Low: Briar' }).first('rule_id as id'))!;
  const link = await app.db('share_links').where({ student_id: student }).first('id');
  await app.db('share_links').where({ id: link!.id }).update({ email: 'ida@home.example', reader_name: 'Aunt Ida' });
  await app.db('test_mail_inbox').insert({
    ...{ message_id: '<1>', recipient: 'ida@home.example', subject: 'Ansel', body: 'Ansel laughed', headers: {} },
    arrived_at: new Date(),
  });
  const [behavior] = await app.db('behavior_choices').where({ student_id: student, kind: 'behavior' });
  const [count, issued] = [randomUUID(), randomUUID()];
  await app.db('entries').insert({
    ...{ id: count, kind: 'count', student_id: student, target_id: behavior!.id },
    ...{ observed_on: '2026-11-24', observed_time: '09:00' },
    ...{
      minutes: 30,
      count: 1,
      note: 'Briar laughed',
      observer_id: hanneke,
      recorded_by: hanneke,
      recorded_at: new Date(),
    },
  });
  await app.db('evidence').insert({
    ...{ id: randomUUID(), student_id: student, entry_id: entry, name: 'Briar and Ansel.pdf', type: 'application/pdf' },
    ...{ bytes: 1, content: Buffer.from('x'), added_by: hanneke, added_at: new Date() },
  });
  const words = { type: 'doc', content: [] };
  const content = {
    ...{ student: { name: 'Ansel Dorsey', shortName: 'Ansel D.', grade: 'Grade 4', groups: [] }, schoolName: 'x' },
    ...{ caseManager: 'x', plan: { startsOn: '2026-09-08', endsOn: '2027-06-11' }, goals: [], behavior: [], words },
    period: { label: 'Quarter 1', from: '2026-09-08', to: '2026-12-04' },
  };
  const { id: period } = await app
    .db('reporting_periods as r')
    .join('plans as p', 'p.id', 'r.plan_id')
    .where({ 'p.student_id': student, 'r.ends_on': '2026-12-04' })
    .first('r.id');
  await app.db('issued_reports').insert({
    ...{ id: issued, student_id: student, number: 1, period_label: 'Quarter 1', period_from: '2026-09-08' },
    ...{ period_to: '2026-12-04', content, period_id: period, readers: [], issued_by: hanneke, issued_at: new Date() },
  });
  const file = randomUUID();
  const table = { name: 'Ansel.csv', head: ['Student', 'Date'], rows: [['Ansel Dorsey', 'Briar']], firstRow: 2 };
  await app.db('imports').insert({
    ...{ id: file, kind: 'entries', file_name: 'Ansel.csv', made_by: hanneke, made_at: new Date() },
    ...{ school_id: await schoolId(app.db), content: JSON.stringify({ is: 'tables', tables: [table] }) },
    mapping: JSON.stringify({ columns: ['student', 'on'] }),
  });
  return [
    ...['/imports', `/imports/${file}`, '/records', '/destructions', '/school/new-year'],
    ...['/messages', '/messages/test-mail', '/messages/templates', '/rules', `/rules/${rule}`, '/follow-ups?of=all'],
    ...[
      '/messages/new',
      '/follow-ups',
      '/meeting',
      '/progress-report',
      '/progress-report/2026-12-04',
      `/issued/${issued}`,
      `/counts/${count}`,
      '/incidents',
      '/behavior',
    ].map((view) => `/students/${student}${view}`),
    ...[`/evidence/of/${entry}`, '/sharing', '/sharing/access-log', '/sharing/record'].map(
      (view) => `/students/${student}${view}`,
    ),
  ];
}

test('files follow the page: its filter, its order and its groups; they are called by whose they are', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Ansel', '2a')];
  const csvOf = async (search: string) => {
    const answer = await page.request.get(`/students/${student}/individual-report/as/csv?${search}`);
    expect(answer.headers()['content-disposition']).toBe(
      'attachment; filename=Ansel-D-individual-report-2026-11-24.csv',
    );
    return Papa.parse<Record<string, string>>(await answer.text(), { header: true, skipEmptyLines: true }).data;
  };
  const all = await csvOf('');
  const { count } = (await app.db('entries').where({ goal_id: goal, withdrawn: false }).count().first()) as {
    count: string;
  };
  const one = await csvOf(`goal=${goal}&order=oldest`);
  expect(one).toHaveLength(Number(count));
  expect(one.length).toBeLessThan(all.length);
  expect(new Set(one.map(({ of }) => of)).size).toBe(1);
  const days = one.map(({ date, time }) => `${date} ${time}`);
  expect(days).toEqual(days.toSorted());
  const byGoal = await csvOf('by=goal');
  const seen = byGoal.map(({ of, kind }) => (kind === 'goal' ? of : kind));
  expect(new Set(seen.filter((of, i) => seen.indexOf(of) < i && seen[i - 1] !== of && /·/.test(of ?? ''))).size).toBe(
    0,
  );
  // As a spreadsheet it has a sheet for all of it, and one for each goal.
  const file = await page.request.get(`/students/${student}/individual-report/as/xlsx?goal=${goal}`);
  const workbook = await JSZip.loadAsync(await file.body());
  const names = (await workbook.file('xl/workbook.xml')?.async('text')) ?? '';
  expect([...names.matchAll(/<sheet [^>]*name="([^"]+)"/g)].map(([, name]) => name)).toEqual([
    'Entries',
    expect.stringMatching(/^2a /),
  ]);
  const sheet = (await workbook.file('xl/worksheets/sheet2.xml')?.async('text')) ?? '';
  expect(sheet.match(/<row /g)).toHaveLength(one.length + 1);
  // The page’s own links carry what it shows.
  await page.goto(`/students/${student}/individual-report?goal=${goal}&order=oldest`);
  await expect(page.getByRole('link', { name: 'PDF' })).toHaveAttribute(
    'href',
    new RegExp(`goal=${goal}&order=oldest`),
  );
});

test('needs a closer look: only who does, and the filter is an address', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/students');
  const rows = page
    .getByRole('main')
    .getByRole('listitem')
    .filter({ hasText: /Grade \d/ });
  await expect(rows).toHaveCount(12);
  await page.getByRole('link', { name: 'Needs a closer look' }).click();
  await expect(page).toHaveURL(/show=attention/);
  await expect.poll(() => rows.count()).toBeLessThan(12);
  const shown = await rows.count();
  for (let i = 0; i < shown; i++) await expect(rows.nth(i)).toContainText(/Behind the aim line|No recent data/);
});

test('the graph goes from point to point by arrow keys, and its numbers are one key away', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Fenna')}/goals/${await goalId(app.db, 'Fenna', '2')}`);
  await settled(page);
  const graph = page.getByRole('group', { name: /Graph/ });
  await graph.focus();
  await page.keyboard.press('End');
  const said = page.getByRole('figure').first().locator('[aria-live]');
  await expect(said).toContainText(/Nov 2\d, 2026: \d+ of \d+, \d+%/);
  const last = await said.textContent();
  await page.keyboard.press('ArrowLeft');
  await expect(said).not.toHaveText(last ?? '');
  await page.keyboard.press('Home');
  await expect(said).toContainText('Sep');
  await page.keyboard.press('t');
  const rows = page.getByRole('table', { name: 'Points of the graph' }).getByRole('row');
  expect(await rows.count()).toBeGreaterThan(30);
  await expect(page.getByRole('table', { name: /support level/ })).toBeVisible();
});

test('headers keep foreign scripts and frames out; no script of the page lacks its nonce', async ({ app, page }) => {
  await signInAs(app, page);
  const answer = await page.request.get('/students');
  const policy = answer.headers()['content-security-policy'] ?? '';
  expect(policy).toMatch(/default-src 'none'/);
  expect(policy).toMatch(/frame-ancestors 'none'/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  expect(answer.headers()).toMatchObject({ 'x-content-type-options': 'nosniff', 'cache-control': 'no-store' });
  const nonce = /'nonce-([^']+)'/.exec(policy)?.[1];
  const source = await answer.text();
  for (const script of source.match(/<script[^>]*>/g) ?? []) expect(script).toContain(`nonce="${nonce}"`);
  expect(source).not.toMatch(/\son[a-z]+="/);
  const again = (await page.request.get('/students')).headers()['content-security-policy'];
  expect(again).not.toBe(policy);
  const cookie = (await page.context().cookies()).find(({ name }) => name === 'gm-session');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
});

test('what another site sends is refused, and so is what is too large', async ({ app, page }) => {
  await signInAs(app, page);
  const address = `/students/${await studentId(app.db, 'Ansel')}/sessions`;
  const send = (headers: Record<string, string>, data: object) =>
    page.request.post(address, { headers, data }).then((r) => r.status());
  expect(await send({ origin: 'https://elsewhere.example' }, {})).toBe(403);
  expect(await send({ origin: 'null' }, {})).toBe(403);
  expect(await send({}, {})).toBe(403);
  expect(await send({ origin: app.url }, { note: 'x'.repeat(6_000_000) })).toBe(413);
  expect(await send({ origin: app.url }, { nonsense: true })).toBe(400);
  const malformed = await page.request.post(address, {
    headers: { origin: app.url, 'content-type': 'application/json' },
    data: Buffer.from('{ broken'),
  });
  expect(malformed.status()).toBe(400);
});

test.describe('alone', () => {
  test.use({ ownServer: true });

  test('the log holds no name, note, token or search word', async ({ app, page }) => {
    await signInAs(app, page);
    await page.request.get(`/students/${await studentId(app.db, 'Ansel')}/individual-report?q=Ansel`);
    await page.request.get('/shared/a-token-of-somebody');
    await expect.poll(() => app.log()).toContain('/shared/:token');
    expect(app.log()).toContain('"path":"/students/:studentId/individual-report"');
    expect(app.log()).not.toMatch(/Ansel|a-token-of|@quince-lane/);
  });
});

test('with the database gone the health address and the page say so, and the page comes back by itself', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/students');
  expect((await page.request.get('/health')).status()).toBe(200);
  app.wire.cut();
  expect((await page.request.get('/health')).status()).toBe(503);
  const answer = await page.goto('/students');
  expect(answer?.status()).toBe(503);
  await expect(page.getByRole('heading', { name: 'The database cannot be reached' })).toBeVisible();
  app.wire.mend();
  await expect(page.getByRole('heading', { name: 'Students', level: 1 })).toBeVisible({ timeout: 20_000 });
});

test('a taken port and a database that is not there are one sentence, and an exit code that says whether to try again', async ({
  app,
}) => {
  const port = new URL(app.url).port;
  await expect(startServer({ DATABASE_URL: app.wire.url, PORT: port })).rejects.toThrow(
    /ended with 78: Port \d+ is taken; choose another/,
  );
  await expect(startServer({ DATABASE_URL: 'postgres://x@127.0.0.1:1/x' })).rejects.toThrow(
    /ended with 1: The database cannot be reached/,
  );
});

test('nothing of the server reaches the browser', () => {
  const folder = 'build/client/assets';
  for (const file of readdirSync(folder).filter((name) => name.endsWith('.js'))) {
    expect(readFileSync(`${folder}/${file}`, 'utf8'), file).not.toMatch(
      /argon2|password_hash|DATABASE_URL|\bselect [\w*"., ]{1,80} from \w/,
    );
  }
});
