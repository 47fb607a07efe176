// What is written down of changes and of opening, how it is read, and going from one school to another.
import { randomUUID } from 'node:crypto';
import { axeFindings, expect, expectToast, schoolId, settled, signInAs, studentId, test } from './fixtures';

test('an administrator reads what was changed, narrows it down, and takes it away as a file', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  // A closure more, and a member less.
  await page.goto('/school');
  await settled(page);
  await page.getByRole('button', { name: 'Add a closure' }).click();
  await page.getByLabel('What it is', { exact: true }).last().fill('Snow day');
  await page.getByLabel('First day').last().fill('2027-01-11');
  await page.getByLabel('Last day').last().fill('2027-01-11');
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expectToast(page, 'The school is saved.');
  await page.getByRole('link', { name: 'What was changed, when and by whom' }).click();
  await settled(page);
  const rows = page.getByRole('table', { name: 'Changes, newest first' }).getByRole('row');
  await expect(rows.nth(1)).toContainText('School');
  await expect(rows.nth(1)).toContainText('Snow day');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Name of a student or person').fill('ansel');
  await page.getByRole('button', { name: 'Show these' }).click();
  await expect(page).toHaveURL(/about=ansel/);
  await expect(page.getByRole('main')).not.toContainText('Snow day');
  await expect(rows.filter({ hasText: 'Ansel Dorsey' }).first()).toBeVisible();
  const file = await page.request.get(`/school/changes.csv?about=ansel`);
  expect(file.headers()['content-type']).toContain('text/csv');
  const text = await file.text();
  expect(text).toMatch(/^\uFEFFat,what,student,person,by,said,before,after\r\n/);
  expect(text).toContain('What each reader sees,Ansel Dorsey');
  expect(text).not.toContain('Snow day');
  // That it was taken away is written down too.
  await page.goto('/school/changes?kind=file');
  await expect(rows.nth(1)).toContainText('File downloaded');
  await expect(rows.nth(1)).toContainText('ansel');
  await page.goto('/school/changes?about=nobody+of+that+name&page=99&kind=x&from=never');
  await expect(page.getByText('Nothing that fits.')).toBeVisible();

  // Whoever is no administrator has no such page, nor the file.
  await signInAs(app, page, 'Lotte Varga');
  expect((await page.request.get('/school/changes')).status()).toBe(404);
  expect((await page.request.get('/school/changes.csv')).status()).toBe(404);
  expect(student).toBeTruthy();
});

test('what a family could see on a day is told by what was written down', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/sharing`);
  await settled(page);
  const family = page
    .getByRole('region', { name: 'Readers from outside' })
    .getByRole('listitem')
    .filter({ hasText: 'Family' });
  // Since the demo was loaded, the note is theirs too.
  await expect(family).toContainText('numbers, breakdown and note');
  await page.getByLabel('On another day').fill('2026-10-01');
  await page.getByRole('button', { name: 'Show that day' }).click();
  await expect(page.getByRole('heading', { name: 'Who could see this on Thu, Oct 1, 2026?' })).toBeVisible();
  await expect(family).toContainText('numbers and breakdown; not note');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('link', { name: 'Back to today' }).click();
  await expect(page.getByRole('heading', { name: 'Who can see this?' })).toBeVisible();
  // A day that has not come is today; before there was a team, there was nobody.
  await page.goto(`/students/${student}/sharing?day=2030-01-01`);
  await expect(page.getByRole('heading', { name: 'Who can see this?' })).toBeVisible();
  await page.goto(`/students/${student}/sharing?day=2026-08-01`);
  await expect(page.getByRole('region', { name: 'Readers from outside' })).toContainText('Nobody.');
});

test.describe('what a server remembers of openings', () => {
  test.use({ ownServer: true });
  test('what is opened of a student is written down: once a day for the team, with a purpose for readers from outside', async ({
    app,
    page,
    browser,
  }) => {
    await signInAs(app, page);
    const student = await studentId(app.db, 'Briar');
    const opened = () =>
      app.db('access_log').where({ student_id: student }).orderBy('id').select('what', 'how', 'link_id');
    await page.goto(`/students/${student}`);
    await page.goto(`/students/${student}/individual-report`);
    await page.goto(`/students/${student}`);
    expect((await opened()).filter(({ what }) => what === 'the student’s pages')).toHaveLength(1);
    await signInAs(app, page, 'Samir Tadesse');
    // An administrator who is not on the team: the roster's page of the student is an opening too.
    expect((await page.request.get(`/students/${student}/edit`)).status()).toBe(200);
    expect((await opened()).filter(({ what }) => what === 'the student’s pages')).toHaveLength(2);
    expect((await page.request.get(`/students/${student}`)).status()).toBe(404);
    expect((await page.request.get(`/students/${randomUUID()}/edit`)).status()).toBe(404);

    await signInAs(app, page);
    await page.goto(`/students/${student}/sharing/links`);
    await settled(page);
    await page.getByLabel('Who will read').fill('Dr. Perrin');
    await page.getByLabel('What kind of reader').selectOption('Outside specialist');
    await page.getByLabel('What for').fill('An evaluation that the parents have agreed to');
    await page.getByRole('button', { name: 'Make the link' }).click();
    const link = await page.getByLabel('The link', { exact: true }).inputValue();
    const reader = await browser.newPage({ baseURL: app.url });
    await reader.goto(new URL(link).pathname);
    await expect(reader.getByRole('heading', { name: 'Briar Q.' })).toBeVisible();
    await reader.close();
    await page.goto(`/students/${student}/sharing/access-log`);
    await expect(page.getByRole('row').filter({ hasText: 'Dr. Perrin' })).toContainText(
      'An evaluation that the parents have agreed to',
    );
    expect(await axeFindings(page)).toEqual([]);
    const csv = await (await page.request.get(`/students/${student}/sharing/access-log.csv`)).text();
    expect(csv).toMatch(/^\uFEFFat,who,by,what,how,purpose\r\n/);
  });
});

test('whoever works at two schools goes from one to the other; whoever works at one is shown no switch', async ({
  app,
  page,
}) => {
  await signInAs(app, page, 'Maeve Rourke');
  await page.goto('/students');
  await expect(page.getByLabel('School', { exact: true })).toHaveCount(0);
  const elder = randomUUID();
  await app
    .db('schools')
    .insert({ id: elder, name: 'Elder Brook School', time_zone: 'America/Denver', weekdays: [1, 2, 3, 4, 5] });
  const { id: maeve } = (await app.db('people').where({ name: 'Maeve Rourke' }).first('id'))!;
  await app.db('school_staff').insert({ school_id: elder, person_id: maeve, from_date: '2026-09-01' });
  const names = { first_name: 'Odd', last_name: 'Lunde', short_name: 'Odd L.', initials: 'OL', grade: 'Grade 2' };
  const odd = randomUUID();
  await app.db('students').insert({ id: odd, school_id: elder, ...names });
  await app
    .db('team_members')
    .insert({ student_id: odd, person_id: maeve, role: 'specialist', from_date: '2026-09-01' });
  await page.goto('/students');
  await settled(page);
  const tabs = page.getByRole('navigation', { name: 'Students, by tab' });
  await page.getByLabel('School', { exact: true }).selectOption('Quince Lane School');
  await expect(tabs.getByRole('link', { name: /^AD/ })).toBeVisible();
  await settled(page);
  await page.getByLabel('School', { exact: true }).selectOption('Elder Brook School');
  await expect(tabs.getByRole('link', { name: /^OL/ })).toBeVisible();
  await expect(tabs.getByRole('link', { name: /^AD/ })).toHaveCount(0);
  expect(await axeFindings(page)).toEqual([]);
  // A student of the other school is not there, nor is a school that is not theirs.
  expect((await page.request.get(`/students/${await studentId(app.db, 'Ansel')}`)).status()).toBe(404);
  const post = (school: string) =>
    page.request.post(`${app.url}/school/switch`, { form: { school }, headers: { origin: app.url }, maxRedirects: 0 });
  expect((await post(randomUUID())).status()).toBe(404);
  expect((await post('nonsense')).status()).toBe(400);
  expect((await post(await schoolId(app.db))).status()).toBe(302);
});
