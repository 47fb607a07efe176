// A school moves in: from an empty database to a year of what was recorded before, by files.
import { spawnSync } from 'node:child_process';
import type { Browser, Page } from '@playwright/test';
import { connect } from '~/server/platform/db/database';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';
import { clock } from './demo-template';
import { axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';
import { startServer } from './server';

const PASSWORD = 'four odd kettles sing';

/** Hands a file over, and comes to what it holds. */
async function handOver(page: Page, kind: string, text: string, name = 'file.csv') {
  await page.goto('/imports');
  await settled(page);
  await page.getByLabel('What is in it').selectOption({ label: kind });
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await page.getByRole('button', { name: 'Look through it' }).click();
}
const rows = (page: Page) => page.getByRole('region', { name: 'Rows' });

async function setUpSchool(page: Page, code: string) {
  await page.goto('/set-up');
  await settled(page);
  await page.getByLabel('Code from the start command').fill(code);
  await page.getByLabel('Name of the school').fill('Elder Brook School');
  await page.getByLabel('Time zone').selectOption('America/New_York');
  await page.getByLabel('Your name').fill('Ines Okoro');
  await page.getByLabel('Email, with which you sign in').fill('ines@elder-brook.example');
  await page.getByLabel('A password, of 12 characters or more').fill(PASSWORD);
  await page.getByLabel('Once more').fill(PASSWORD);
  await page.getByRole('button', { name: 'Set up the school' }).click();
  await expect(page.getByRole('heading', { name: 'School', level: 1, exact: true })).toBeVisible();
}

async function joins(browser: Browser, baseURL: string, link: string): Promise<Page> {
  const page = await browser.newPage({ baseURL });
  await page.goto(new URL(link).pathname);
  await settled(page);
  await page.getByLabel('A password, of 12 characters or more').fill('anvil parsley tin lamp');
  await page.getByLabel('Once more').fill('anvil parsley tin lamp');
  await page.getByRole('button', { name: 'Make my account' }).click();
  await expect(page).toHaveURL(`${baseURL}/`);
  return page;
}

const roster = `First name,Last name,Grade,Group,Case manager,Case manager email
Nell,Zapata,5,Oaks,Lena Ortiz,lena@elder-brook.example
Emrys,Vale,4,Oaks,Lena Ortiz,lena@elder-brook.example`;

const goals = `Student,Goal number,Goal,Area,Measure,Trials,Criterion,Plan start,Plan end
Nell Zapata,1,Nell will ask for the tool that is needed 4 of 5 times.,Communication,trials,5,80% in 3 of 4 sessions,9/1/2025,8/31/2027
Emrys Vale,1,Emrys will begin within 15 seconds of being asked.,Work,latency,,at most 15,9/1/2025,8/31/2027`;

/** Forty Mondays: Nell is right 2 of 5 times, and 4 of 5 in the last ten; Emrys comes down from 50 seconds by one a week. */
const mondays = Array.from({ length: 40 }, (_, week) =>
  new Date(Date.UTC(2026, 1, 16 + 7 * week)).toISOString().slice(0, 10),
);
const year = [
  'Date,Nell Zapata,Emrys Vale',
  ...mondays.map((day, week) => `${day},${week < 30 ? 2 : 4}/5,${50 - week}`),
].join('\n');

/** Begins the next plan of a student: the goal goes on, to a higher criterion; its graph goes through both years. */
async function nextYear(page: Page, { student, goal }: { student: string; goal: string }) {
  await page.goto(`/students/${student}`);
  await page.getByRole('link', { name: 'Next plan' }).click();
  await expect(page.getByRole('heading', { name: /The next plan of Nell/ })).toBeVisible();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  // What is met would end with the old plan, unless it is said that it goes on.
  const becomes = page.getByLabel('What becomes of goal 1');
  await expect(becomes).toHaveValue('met');
  await becomes.selectOption({ label: 'Goes on' });
  await expect(page.getByLabel('Baseline', { exact: true })).toHaveValue('80');
  await page.getByLabel('Criterion').fill('190');
  await page.getByRole('button', { name: 'Begin the next plan' }).click();
  await expect(page.getByText('This lies outside of 0 to 100%.')).toBeVisible();
  await page.getByLabel('Criterion').fill('90');
  await page.getByRole('button', { name: 'Begin the next plan' }).click();
  await expectToast(page, 'The next plan has begun.');
  await page.goto(`/students/${student}/goals/${goal}`);
  await page.getByRole('link', { name: 'To the goal that took its place' }).click();
  await expect(page.getByText('Nothing measured yet')).toBeVisible();
  await page.getByRole('link', { name: 'Show the graph through its years' }).click();
  await expect(page.getByRole('img', { name: /^40 scores from Feb 16/ })).toBeVisible();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
}

/** An installation of its own, empty, with the code that its start command prints. */
async function emptyInstallation() {
  const name = newName('moving');
  await makeDatabase(name);
  const printed = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/prepare.ts'], {
    env: { ...process.env, DATABASE_URL: urlOf(name) },
    encoding: 'utf8',
  });
  const code = /[A-Z0-9]{4}(?:-[A-Z0-9]{4}){3}/.exec(printed.stdout)?.[0] as string;
  const server = await startServer({ DATABASE_URL: urlOf(name), CLOCK: clock });
  const db = connect(urlOf(name), { poolSize: 1 });
  const end = async () => {
    await db.destroy();
    await server.stop();
    await dropDatabase(name);
  };
  return { code, server, db, end };
}

/** What a page says of its student, but for what is the school's own. */
async function saidAt(page: Page, address: string) {
  await page.goto(address);
  await settled(page);
  return (await page.getByRole('main').textContent()) ?? '';
}

/** Carries a student's whole record out, and has another installation read it in, where all of it reads the same. */
async function moveOn(page: Page, browser: Browser, student: string) {
  await page.goto(`/students/${student}/sharing/record`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make the archive' }).click();
  await expect(page.getByText('Say for whom it is, and what for.')).toBeVisible();
  await page.getByLabel('For whom, and what for').fill('Quince Hill School, where Nell goes now');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Make the archive' }).click();
  const archive = await (await download).path();
  const report = await saidAt(page, `/students/${student}/individual-report`);
  expect(report).toContain('4 of 5');
  await page.goto(`/students/${student}/sharing/access-log`);
  await expect(page.getByRole('main')).toContainText('for Quince Hill School, where Nell goes now');

  const { code, server, db, end } = await emptyInstallation();
  const head = await browser.newPage({ baseURL: server.url });
  try {
    await setUpSchool(head, code);
    await head.goto('/records');
    await settled(head);
    expect(await axeFindings(head)).toEqual([]);
    await head
      .getByLabel('Archive')
      .setInputFiles({ name: 'letter.zip', mimeType: 'application/zip', buffer: Buffer.from('x') });
    await head.getByRole('button', { name: 'Look at it' }).click();
    await expect(head.getByText(/The archive is damaged/)).toBeVisible();
    await head.getByLabel('Archive').setInputFiles(archive);
    await head.getByRole('button', { name: 'Look at it' }).click();
    await expect(head.getByRole('heading', { name: 'The record of Nell Zapata' })).toBeVisible();
    await expect(head.getByRole('main')).toContainText('40 entries');
    await settled(head);
    expect(await axeFindings(head)).toEqual([]);
    expect(await db('students')).toEqual([]);
    await head.getByLabel('Grade here').fill('6');
    await head.getByLabel('Case manager').selectOption({ label: 'Ines Okoro' });
    await head.getByRole('button', { name: 'Read it in' }).click();
    await expect(head.getByText(/Nell Zapata is on the roster/)).toBeVisible();
    const id = (await db('students').first('id'))?.id;
    expect(await saidAt(head, `/students/${id}/individual-report`)).toBe(report.replace('5 · Oaks ·', '6 ·'));
    const goals = await db('goals').orderBy('starts_on').select('id', 'continues', 'target');
    expect(goals.map(({ target }) => target)).toEqual([80, 90]);
    expect(goals[1]?.continues).toBe(goals[0]?.id);
    await head.goto(`/students/${id}/goals/${goals[1]?.id}`);
    await head.getByRole('link', { name: 'Show the graph through its years' }).click();
    await expect(head.getByRole('img', { name: /^40 scores from Feb 16/ })).toBeVisible();
  } finally {
    await head.close();
    await end();
  }
}

test('from a set-up code to a year of entries by files, the next plan, and on to another school', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const { code, server, db, end } = await emptyInstallation();
  const head = await browser.newPage({ baseURL: server.url });
  try {
    await setUpSchool(head, code);
    await handOver(head, 'Roster', roster, 'roster.csv');
    await expect(head.getByRole('heading', { name: 'roster.csv' })).toBeVisible();
    await settled(head);
    expect(await axeFindings(head)).toEqual([]);
    await expect(rows(head).getByRole('row', { name: /Nell Zapata/ })).toContainText('Grade 5 · Oaks · Lena Ortiz');
    expect(await db('students')).toEqual([]);
    // Nobody is asked who was not said to be staff.
    await head.getByLabel('Lena Ortiz, ').check();
    await head.getByRole('button', { name: 'Look again' }).click();
    await settled(head);
    await expect(head.getByLabel('Lena Ortiz, ')).toBeChecked();
    await head.getByRole('button', { name: 'Import 2 rows' }).click();
    const link = await head.getByLabel('Link for Lena Ortiz').inputValue();
    expect(await axeFindings(head)).toEqual([]);

    const lena = await joins(browser, server.url, link);
    await lena.goto('/students');
    await expect(lena.getByRole('main')).toContainText('Nell');
    await handOver(lena, 'Goals', goals, 'goals.csv');
    await expect(rows(lena)).toContainText('at least 80% in 3 of the last 4');
    await lena.getByRole('button', { name: 'Import 2 rows' }).click();
    await expectToast(lena, 'Imported: 2 rows.');
    await handOver(lena, 'Past entries', year, 'year.csv');
    await expect(lena.getByLabel('What “Nell Zapata” holds')).toHaveValue(/^goal:/);
    await lena.getByRole('button', { name: 'Import 80 rows' }).click();
    await expectToast(lena, 'Imported: 80 rows.');

    // What Today, the goal and the report say is computed from them.
    await lena.goto('/');
    await expect(lena.getByRole('main')).toContainText('Nell');
    const [nell, emrys] = await db('goals as g')
      .join('students as s', 's.id', 'g.student_id')
      .orderBy('s.first_name', 'desc')
      .select('g.id', 'g.student_id');
    await lena.goto(`/students/${nell?.student_id}/goals/${nell?.id}`);
    await expect(lena.getByRole('main')).toContainText('80%');
    await expect(lena.getByRole('main')).toContainText('Met');
    await lena.goto(`/students/${emrys?.student_id}/individual-report`);
    await expect(lena.getByRole('main')).toContainText('11 s');
    await nextYear(lena, { student: nell?.student_id ?? '', goal: nell?.id ?? '' });
    const chain = await db('goals')
      .where({ student_id: nell?.student_id })
      .orderBy('starts_on')
      .select('continues', 'retired_how', 'target');
    expect(chain).toEqual([
      { continues: null, retired_how: 'replaced', target: 80 },
      { continues: nell?.id, retired_how: null, target: 90 },
    ]);
    await moveOn(lena, browser, nell?.student_id ?? '');
    await lena.close();
  } finally {
    await head.close();
    await end();
  }
  expect(page.url()).toBe('about:blank');
});

test('a file is looked through, corrected at its columns, imported, and taken back as a whole', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Dahlia');
  const standing = async () => (await app.db('entries').where({ student_id: student, withdrawn: false })).length;
  const before = await standing();
  await handOver(page, 'Past entries', 'not a table', 'letter.csv');
  await expect(page.getByText('There is no table in it')).toBeVisible();
  // Nothing that was chosen is lost.
  await expect(page.getByLabel('What is in it')).toHaveValue('entries');
  await handOver(
    page,
    'Past entries',
    'Who,No,When,How it went\nDahlia Nakano,1,10/5/2026,3/5\nDahlia Nakano,1,10/6/2026,great\n',
  );
  await expect(rows(page)).toContainText('No row holds anything.');
  await page.getByLabel('What “Who” holds').selectOption({ label: 'Student' });
  await page.getByLabel('What “No” holds').selectOption({ label: 'Goal' });
  await page.getByLabel('What “When” holds').selectOption({ label: 'Date' });
  await page.getByLabel('What “How it went” holds').selectOption({ label: 'Score' });
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(rows(page).getByRole('row', { name: /great/ })).toContainText('How many of how many');
  await rows(page)
    .getByRole('link', { name: /Needs another look/ })
    .click();
  await expect(rows(page).getByRole('row')).toHaveCount(2);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Import 1 row' }).click();
  await expectToast(page, 'Imported: 1 row.');
  expect(await standing()).toBe(before + 1);
  await page.getByRole('button', { name: 'Undo the whole import' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Undo the whole import' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo the whole import' }).click();
  await expectToast(page, 'Undone: 1 row.');
  await expect(page.getByText(/This import was undone on/)).toBeVisible();
  expect(await standing()).toBe(before);
});
