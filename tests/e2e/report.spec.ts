// The individual report, and the people who read it.
import type { Locator, Page } from '@playwright/test';
import { textOfPdf } from '../examples/pdf-text';
import { withPost } from './beside';
import { axeFindings, expect, expectToast, schoolId, settled, signInAs, studentId, test } from './fixtures';
import { printedPages } from './printed';

const entryOf = (page: Page, words: string | RegExp): Locator =>
  page.getByRole('main').getByRole('listitem').filter({ hasText: words }).first();

/** Makes a way in through the real form, and returns its path. */
async function makeLink(page: Page, student: string, { name = 'Aunt Ida', kind = 'Family', passcode = '' } = {}) {
  await page.goto(`/students/${student}/sharing/links`);
  await settled(page);
  await page.getByLabel('Who will read').fill(name);
  await page.getByLabel('What kind of reader').selectOption(kind);
  if (passcode) await page.getByLabel('Passcode, if you want one').fill(passcode);
  await page.getByRole('button', { name: 'Make the link' }).click();
  return new URL(await page.getByLabel('The link', { exact: true }).inputValue()).pathname;
}

/** Lets a reader’s kind see exactly these fields, through the real table. */
async function letSee(page: Page, student: string, kind: string, fields: string[]) {
  await page.goto(`/students/${student}/sharing/visibility`);
  await settled(page);
  for (const box of await page.getByRole('checkbox', { name: new RegExp(`for ${kind}$`) }).all()) {
    const name = ((await box.locator('xpath=..').textContent()) ?? '').replace(` for ${kind}`, '');
    await box.setChecked(fields.includes(name.trim()));
  }
  await page.getByRole('button', { name: 'Save what each reader sees' }).click();
  await expectToast(page, 'Saved. Every reader sees the report so from now on.');
}

async function tap(page: Page, student: string, note: string) {
  await page.goto(`/students/${student}/observe`);
  await settled(page);
  const sheet = page.getByRole('region', { name: 'Sands to the line' });
  for (const level of ['Independent', 'Independent', 'Gesture']) {
    await sheet.getByRole('button', { name: level, exact: true }).click();
  }
  await sheet.getByLabel('Note on Sands to the line').fill(note);
  return sheet;
}

test('one entry: from the tap to the family’s page, its message, and the issued PDF; each kind of reader sees what the table says', async ({
  app,
  page,
  browser,
}) => {
  test.slow();
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await letSee(page, student, 'Family', ['Numbers', 'Breakdown', 'Note']);
  const rule = {
    school_id: await schoolId(app.db),
    student_id: student,
    layout: 'sentences' as const,
    grouping: 'week' as const,
    oldest_first: false,
  };
  const { changed_by, changed_at } = (await app.db('visibility_rules').where({ student_id: student }).first())!;
  await app.db('visibility_rules').insert([
    { ...rule, kind: 'specialist' as const, fields: ['numbers', 'location', 'observer'], changed_by, changed_at },
    { ...rule, kind: 'student' as const, fields: ['numbers'], changed_by, changed_at },
  ]);
  const family = await makeLink(page, student);
  const specialist = await makeLink(page, student, { name: 'Dr. Perrin', kind: 'Outside specialist' });
  const own = await makeLink(page, student, { name: 'Ansel himself', kind: 'Student' });

  // The family is told at each entry.
  await page.goto(`/students/${student}/sharing/links`);
  await settled(page);
  const row = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Aunt Ida', exact: true }) });
  await row.getByText('Change').click();
  await row.getByLabel('How often').selectOption('at each entry');
  await row.getByRole('button', { name: 'Save' }).click();
  await expect(row.getByText('Without an address nothing can be sent.')).toBeVisible();
  await row.getByLabel('Email').fill('ida@home.example');
  await row.getByRole('button', { name: 'Save' }).click();
  await expect(row.getByText('Emails to ida@home.example, at each entry.')).toBeVisible();

  // Another child’s name is pointed out while it is being written.
  const sheet = await tap(page, student, 'Beside Emrys, without a word.');
  await expect(sheet.getByText('“Emrys”: another child? Readers from outside see “a classmate”.')).toBeVisible();
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Ansel: 1 goal.');

  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await expect(entryOf(page, 'Beside Emrys')).toContainText('3 of 3 edges with a gesture or less help (100%).');
  await expect(page.getByRole('region', { name: 'Other children’s names' })).toContainText('“Emrys”');

  const reader = await browser.newPage({ baseURL: app.url });
  const seen = async (path: string) => {
    const source = (await (await reader.goto(path))?.text()) ?? '';
    await settled(reader);
    const entry = reader.locator('.report-group').locator('li, tr').filter({ hasText: 'Sands to the line' }).first();
    return { source, entry: (await entry.textContent()) ?? '' };
  };
  const forFamily = await seen(family);
  expect(forFamily.entry).toContain('3 of 3 edges with a gesture or less help (100%). Alone: 2. With a gesture: 1.');
  expect(forFamily.entry).toContain('Beside a classmate, without a word.');
  expect(forFamily.source).not.toMatch(/Emrys|H\. Bruun/);
  const forSpecialist = await seen(specialist);
  expect(forSpecialist.entry).toContain('3 of 3 (100%).');
  expect(forSpecialist.entry).toContain('H. Bruun');
  expect(forSpecialist.source).not.toMatch(/Emrys|a classmate|one after a gesture/);
  const forStudent = await seen(own);
  expect(forStudent.entry).toContain('3 of 3 (100%).');
  expect(forStudent.source).not.toMatch(/Emrys|a classmate|H\. Bruun|one after a gesture/);

  // The message leaves, and says what the family may see.
  await withPost(app, async () => {
    await page.goto('/messages/test-mail');
    await settled(page);
    await expect(async () => {
      await page.reload();
      await expect(page.getByText('A new entry in the report you follow')).toBeVisible({ timeout: 500 });
    }).toPass();
    await page.getByText('A new entry in the report you follow').click();
    const mail = page.getByRole('listitem').filter({ hasText: 'ida@home.example' });
    await expect(mail).toContainText('Beside a classmate, without a word.');
    await expect(mail).not.toContainText('Emrys');
    // What opens something is cut out where it is shown, and is in the message itself.
    await expect(mail).toContainText('(the link)');
    await expect(mail).not.toContainText('/shared/');
    const { body } = (await app.db('test_mail_inbox').where({ recipient: 'ida@home.example' }).first('body'))!;
    const link = /http:\/\/localhost:\d+(\/shared\/[\w-]+)/.exec(body)?.[1] as string;
    expect((await seen(link)).entry).toContain('Beside a classmate');
    await page.goto('/messages');
    await settled(page);
    expect(await axeFindings(page)).toEqual([]);
    await expect(page.getByRole('listitem').filter({ hasText: 'Aunt Ida' })).toContainText('Sent');
    // It can be stopped from the message itself.
    await reader.goto(
      new URL(
        /http:\/\/localhost:\d+\/stop\/[\w-]+/.exec(await (await app.db('test_mail_inbox').first('body'))!.body)?.[0] ??
          '',
      ).pathname,
    );
    await reader.getByRole('button', { name: 'Stop them' }).click();
    await expect(reader.getByRole('heading', { name: 'No more messages' })).toBeVisible();
  });

  // The progress report is written, issued and frozen, and read by whom it is for.
  await page.goto('/reports');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('link', { name: 'To the draft of Ansel D.' }).click();
  const editor = page.getByRole('textbox', { name: 'Your words about 1 · Sands to the line' });
  await editor.click();
  await page.keyboard.type('He counts the strokes now.');
  await expect(page.getByText(/^Kept/)).toBeVisible();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Issue it …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Issue it' }).click();
  await expectToast(page, 'Issued. It is numbered and dated, and does not change any more.');
  expect(await axeFindings(page)).toEqual([]);
  for (const text of await printedPages(page)) expect(text).toContain('Ansel D. · progress report · Quarter 1');
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await entryOf(page, 'Beside Emrys').getByRole('link', { name: '1 · Sands to the line' }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Withdraw' }).first().click();
  await page.getByLabel('Why').fill('It was another session.');
  await page.getByRole('button', { name: 'Withdraw entry' }).click();
  await expectToast(page, 'Withdrawn. It counts nowhere any more.');

  await reader.goto(family);
  await settled(reader);
  await reader.getByRole('link', { name: 'Quarter 1' }).click();
  await expect(reader.getByText('No. 1, issued Tue, Nov 24, 2026').first()).toBeVisible();
  await expect(reader.getByText('He counts the strokes now.')).toBeVisible();
  await expect(reader.getByText('1 entry that it was made from was corrected or withdrawn since.')).toBeVisible();
  expect(await axeFindings(reader)).toEqual([]);
  const pdf = await reader.request.get(`${new URL(reader.url()).pathname}/pdf`);
  const { pages, title, language } = await textOfPdf(await pdf.body());
  expect([title, language]).toEqual(['Progress report of Ansel D., Quarter 1', 'en-US']);
  for (const text of pages) expect(text).toContain('Ansel D. · progress report · Quarter 1');
  const all = pages.join(' ');
  for (const words of [
    'Sands to the line',
    'He counts the strokes now.',
    'No. 1, issued',
    'Parent or guardian, date',
  ]) {
    expect(all).toContain(words);
  }
  expect(all).not.toMatch(/Emrys|Behavior in brief/);
  await reader.goto(specialist);
  await settled(reader);
  await expect(reader.getByRole('link', { name: 'Quarter 1' })).toHaveCount(0);
  expect(
    (await reader.request.get(`${specialist}/issued/${(await app.db('issued_reports').first('id'))!.id}`)).status(),
  ).toBe(404);

  // Who read what stands in the record.
  await page.goto(`/students/${student}/sharing/access-log`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await expect(
    page.getByRole('row').filter({ hasText: 'Aunt Ida' }).filter({ hasText: 'progress report no. 1 (PDF)' }),
  ).toContainText('exported');
  const csv = await (await page.request.get(`/students/${student}/sharing/access-log.csv`)).text();
  expect(csv).toContain('Aunt Ida,a share link (Family),report,opened');
  await reader.close();
});

test('the report in three ways, found, at a day, answered; what is hidden stays for the team', async ({
  app,
  page,
  browser,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await page.getByText('Arrange', { exact: true }).click();
  await page.getByRole('combobox', { name: 'As', exact: true }).selectOption('A table');
  await expect(page.getByRole('columnheader', { name: 'What was seen' }).first()).toBeVisible();
  await page.getByRole('combobox', { name: 'Grouped', exact: true }).selectOption('By goal');
  await expect(page.getByRole('heading', { level: 2, name: '1 · Sands to the line' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('combobox', { name: 'As', exact: true }).selectOption('Cards');
  await page.getByRole('combobox', { name: 'Grouped', exact: true }).selectOption('Not at all');
  await page.getByRole('combobox', { name: 'Order', exact: true }).selectOption('Oldest first');
  await expect(page).toHaveURL(/as=cards.*by=none.*order=oldest/);
  // The device remembers how its reader wants it.
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await expect(page.getByRole('columnheader')).toHaveCount(0);
  await page.goto(`/students/${student}/individual-report?as=sentences&by=week&order=newest&day=2026-09-20`);
  await settled(page);
  await expect(page.getByText(/^Page [2-9] of/)).toBeVisible();
  await expect(page.getByRole('heading', { level: 2, name: 'Week of Sep 14' })).toBeVisible();

  await page.getByLabel('Find', { exact: true }).fill('bird house');
  await page.getByRole('button', { name: 'Find in the report' }).click();
  await expect(page.getByText('1 entry. Each is shown')).toBeVisible();
  await expect(entryOf(page, 'I want to build the bird house next.')).toBeVisible();

  // The family answers; the case manager hides it with a reason, and brings it back.
  const family = await makeLink(page, student);
  const reader = await browser.newPage({ baseURL: app.url });
  await reader.goto(family);
  await settled(reader);
  await reader
    .getByRole('button', { name: /^Answer 3 · Lays out a job/ })
    .first()
    .click();
  await reader.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(reader.getByText('Write something first.')).toBeVisible();
  await reader.getByLabel('Your answer').fill('He told us <b>all</b> of it.');
  await reader.getByRole('button', { name: 'Answer', exact: true }).click();
  await expect(entryOf(reader, 'He told us <b>all</b> of it.')).toContainText('Aunt Ida');
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await page.getByRole('button', { name: 'Hide what Aunt Ida said' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('A private matter');
  await page.getByRole('button', { name: 'Hide it' }).click();
  await expect(page.getByText('hidden by H. Bruun: A private matter')).toBeVisible();
  await reader.reload();
  await expect(reader.getByText('He told us <b>all</b> of it.')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show again what Aunt Ida said' }).click();
  await expect(page.getByText('hidden by')).toHaveCount(0);
  await reader.close();
});

test.describe('what a server remembers of wrong tries', () => {
  test.use({ ownServer: true });

  test('a passcode is asked for, slowed, and locked; the case manager is told and unlocks it', async ({
    app,
    page,
    browser,
  }) => {
    await signInAs(app, page);
    const student = await studentId(app.db, 'Ansel');
    const path = await makeLink(page, student, { passcode: 'seven plums' });
    const reader = await browser.newPage({ baseURL: app.url });
    const source = (await (await reader.goto(path))?.text()) ?? '';
    expect(source).not.toContain('Ansel');
    await settled(reader);
    expect(await axeFindings(reader)).toEqual([]);
    const attempt = async (passcode: string) => {
      await reader.getByLabel('The passcode that the case manager told you').fill(passcode);
      await reader.getByRole('button', { name: 'Open the report' }).click();
    };
    await attempt('six plums');
    await expect(reader.getByText('That is not the passcode.')).toBeVisible();
    await attempt('seven plums');
    await expect(reader.getByRole('heading', { name: 'Ansel D.' })).toBeVisible();

    const other = await browser.newPage({ baseURL: app.url });
    await app.db('share_links').where({ reader_name: 'Aunt Ida' }).update({ wrong_passcodes: 7 });
    await other.goto(path);
    await settled(other);
    await other.getByLabel('The passcode that the case manager told you').fill('guess');
    await other.getByRole('button', { name: 'Open the report' }).click();
    await expect(other.getByText('This link is locked')).toBeVisible();
    // Whoever had opened it is out too.
    await reader.reload();
    await expect(reader.getByText('This link is locked')).toBeVisible();
    expect(await app.db('messages').where({ kind: 'locked' })).toHaveLength(1);
    await page.goto(`/students/${student}/sharing/links`);
    await settled(page);
    await page.getByRole('button', { name: 'Unlock' }).click();
    await expectToast(page, 'The share link is unlocked: the passcode can be tried again.');
    await reader.reload();
    await expect(reader.getByRole('heading', { name: 'Ansel D.' })).toBeVisible();
    await Promise.all([reader.close(), other.close()]);
  });
});

test('who can see this; a member who only reads is shown the report alone; a right taken away holds at once', async ({
  app,
  page,
  browser,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/team`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const row = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Lotte Varga' }) });
  const theirs = await browser.newPage({ baseURL: app.url });
  await signInAs(app, theirs, 'Lotte Varga');
  await theirs.goto(`/students/${student}/observe`);
  await row.getByText('Change').click();
  await row.getByRole('checkbox', { name: 'observe' }).uncheck();
  await row.getByRole('button', { name: 'Save' }).click();
  await expectToast(page, 'The team is changed.');
  await expect(row).toContainText('reads the report only');

  // The page that was open cannot be used any more.
  const entries = () => app.db('entries').where({ student_id: student }).count('id as n');
  const before = await entries();
  await settled(theirs);
  await theirs
    .getByRole('region', { name: 'Sands to the line' })
    .getByRole('button', { name: 'Independent', exact: true })
    .click();
  await theirs.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(theirs.getByText('This student, or what it names, is not there for you any more.')).toBeVisible();
  expect(await entries()).toEqual(before);
  expect((await theirs.request.get(`/students/${student}`)).status()).toBe(404);
  expect((await theirs.request.get(`/students/${student}/sharing`)).status()).toBe(404);
  await theirs.goto(`/students/${student}/individual-report`);
  await settled(theirs);
  await expect(theirs.getByRole('link', { name: 'Goals', exact: true })).toHaveCount(0);
  await expect(theirs.getByRole('button', { name: 'Observe' })).toHaveCount(0);
  await expect(entryOf(theirs, '3 · Lays out a job')).toBeVisible();

  // What the table says of the team holds for them.
  await letSee(page, student, 'Team', ['Numbers']);
  const source = (await (await theirs.goto(`/students/${student}/individual-report`))?.text()) ?? '';
  await expect(entryOf(theirs, '3 · Lays out a job')).toBeVisible();
  for (const hidden of ['N. Haddad', 'Workshop · ', 'Leaves the bench', 'alone, ']) {
    expect(source.includes(hidden), hidden).toBe(false);
  }
  await page.goto(`/students/${student}/sharing`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await expect(page.getByRole('listitem').filter({ hasText: 'Lotte Varga' })).toContainText(
    /^Lotte VargaEducator: reads the report: numbers; not breakdown/,
  );
  await theirs.close();
});

test('somebody is invited by email, makes an account, and is on the team', async ({ app, page, browser }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/team`);
  await settled(page);
  const form = page.getByRole('region', { name: 'Invite by email' });
  await form.getByLabel('Name').fill('Odile Marchetti');
  await form.getByLabel('Email').fill('odile@home');
  await form.getByRole('button', { name: 'Invite' }).click();
  await expect(form.getByText('This does not look like an email address.')).toBeVisible();
  await form.getByLabel('Email').fill('odile@home.example');
  await form.getByRole('button', { name: 'Invite' }).click();
  const link = new URL(await page.getByLabel('The link of the invitation').inputValue()).pathname;
  expect(await app.db('messages').where({ kind: 'invitation' }).select('to_email')).toEqual([
    { to_email: 'odile@home.example' },
  ]);

  const guest = await browser.newPage({ baseURL: app.url });
  const source = (await (await guest.goto(link))?.text()) ?? '';
  expect(source).not.toContain('Ansel');
  await settled(guest);
  expect(await axeFindings(guest)).toEqual([]);
  await guest.getByLabel('A password, of 12 characters or more').fill('four odd kettles sing');
  await guest.getByLabel('Once more').fill('another password');
  await guest.getByRole('button', { name: 'Make my account and join' }).click();
  await expect(guest.getByText('The two are not the same.')).toBeVisible();
  await guest.getByLabel('A password, of 12 characters or more').fill('four odd kettles sing');
  await guest.getByLabel('Once more').fill('four odd kettles sing');
  await guest.getByRole('button', { name: 'Make my account and join' }).click();
  await expect(guest.getByRole('heading', { name: 'Ansel D.' })).toBeVisible();
  expect((await guest.request.get(link)).status()).toBe(404);
  await page.reload();
  await expect(page.getByRole('listitem').filter({ hasText: 'Odile Marchetti' })).toContainText('may observe');
  await guest.close();
});

test('a report of a stretch of days, and its file; one of more than a thousand entries is made in the background', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await page.getByText('All days', { exact: true }).click();
  await page.getByLabel('From', { exact: true }).fill('2026-11-18');
  await page.getByLabel('To', { exact: true }).fill('2026-11-20');
  await page.getByRole('button', { name: 'Show these days' }).click();
  await expect(page.getByText('Nov 18 to Nov 20', { exact: true })).toBeVisible();
  await settled(page);
  const days = await page
    .getByRole('main')
    .getByText(/^(Mon|Tue|Wed|Thu|Fri), \w+ \d+$/)
    .allTextContents();
  expect(days.length).toBeGreaterThan(0);
  expect(days.filter((day) => !/Nov (18|19|20)/.test(day))).toEqual([]);
  const csv = await (
    await page.request.get(`/students/${student}/individual-report/as/csv?from=2026-11-18&to=2026-11-20`)
  ).text();
  const daysInFile = csv.match(/^2026-11-\d\d(?=,)/gm) ?? [];
  expect(daysInFile.length).toBeGreaterThan(0);
  expect(daysInFile.every((day) => day >= '2026-11-18' && day <= '2026-11-20')).toBe(true);

  // As many entries as come in years.
  await app.db.raw(
    `insert into entries (id, kind, student_id, goal_id, measure_version, observed_on, observed_time, observer_id, recorded_by,
                          recorded_at, location_id, data, reason, note)
     select gen_random_uuid(), kind, student_id, goal_id, measure_version, observed_on, observed_time, observer_id, recorded_by,
            recorded_at, location_id, data, reason, note
       from entries cross join generate_series(1, 5) where student_id = ? and kind = 'goal' and not withdrawn`,
    [student],
  );
  const file = () => page.request.get(`${app.url}/students/${student}/individual-report/as/pdf`, { maxRedirects: 0 });
  expect((await file()).headers().location).toBe('/reports');
  expect((await file()).status()).toBe(302);
  expect(await app.db('document_batches').select('label', 'what', 'state')).toEqual([
    { label: 'Ansel D.', what: 'running', state: 'waiting' },
  ]);
  await page.goto('/reports');
  await expect(page.getByText('0 of 1 made. You may leave this page.')).toBeVisible();
  // A stretch of it is small enough to be had at once.
  const few = await page.request.get(`/students/${student}/individual-report/as/pdf?from=2026-11-18&to=2026-11-20`);
  expect([few.status(), few.headers()['content-type']]).toEqual([200, 'application/pdf']);
});
