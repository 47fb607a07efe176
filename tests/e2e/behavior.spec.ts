// Catching incidents, and seeing what repeats.

import { execFile } from 'node:child_process';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Locator, Page } from '@playwright/test';
import { addIncident } from '../database/small-school';
import { type App, axeFindings, expect, expectToast, namedBy, settled, signInAs, studentId, test } from './fixtures';
import { printedPages } from './printed';

const run = promisify(execFile);
const chip = (page: Page, name: string | RegExp) =>
  page.getByRole('main').getByRole('button', { name, exact: typeof name === 'string' });
const newest = (app: App) =>
  app.db('entries').where('recorded_at', '>', '2026-11-24T20:29:00Z').orderBy('recorded_at', 'desc');
const choiceId = async (app: App, student: string, name: string) =>
  (await app.db('behavior_choices').where({ student_id: student, name }).first('id'))!.id as string;

async function open(app: App, page: Page, firstName: string, view = 'behavior') {
  const id = await studentId(app.db, firstName);
  await page.goto(`/students/${id}${view ? `/${view}` : ''}`);
  await settled(page);
  return id;
}

test.describe('in the hand', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('an ABC incident is six taps from the student’s page, and can happen again', async ({ app, page }) => {
    await signInAs(app, page);
    const student = await open(app, page, 'Ansel', '');
    let taps = 0;
    const tap = async (target: Locator) => {
      await target.tap();
      taps++;
    };
    await tap(page.getByRole('link', { name: 'Record an incident' }));
    await settled(page);
    await tap(chip(page, 'A tool started nearby'));
    await tap(chip(page, 'Leaves the bench'));
    await tap(chip(page, 'A walk away from the task'));
    await tap(chip(page, /^2 others look up/));
    expect(await axeFindings(page)).toEqual([]);
    await tap(page.getByRole('button', { name: /^Save( ↵)?$/ }));
    await expectToast(page, 'Saved for Ansel: an ABC incident.');
    expect(taps).toBe(6);
    const [note] = await newest(app);
    expect(note).toMatchObject({
      ...{ student_id: student, observed_on: '2026-11-24', observed_time: '15:30', seconds: null, is_going: false },
    });
    expect(await namedBy(app.db, note!)).toMatchObject({
      behavior: [await choiceId(app, student, 'Leaves the bench')],
      antecedent: [await choiceId(app, student, 'A tool started nearby')],
      intensity: [await choiceId(app, student, '2')],
    });
    // Everything within the screen’s width, and what is pressed is within the thumb’s reach.
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

    await open(app, page, 'Ansel', 'note');
    await page.getByRole('button', { name: 'It happened again' }).tap();
    await page.getByRole('button', { name: '5 min earlier' }).tap();
    const save = page.getByRole('button', { name: /^Save( ↵)?$/ });
    expect((await save.boundingBox())?.y).toBeGreaterThan(600);
    await save.tap();
    await expectToast(page, 'Saved for Ansel: an ABC incident.');
    const [again, first] = await newest(app);
    expect(again!.id).not.toBe(first!.id);
    const [said, before] = [await namedBy(app.db, again!), await namedBy(app.db, first!)];
    expect([said.behavior, said.antecedent, said.consequence]).toEqual([
      before.behavior,
      before.antecedent,
      before.consequence,
    ]);
    expect(again!.observed_time < first!.observed_time).toBe(true);

    // It stands in the report and in the margin, as a sentence.
    await open(app, page, 'Ansel', 'report');
    await expect(
      page
        .getByText(
          'Leaves the bench. Before: “A tool started nearby”. Then: “A walk away from the task”. Intensity: 2, others look up.',
        )
        .first(),
    ).toBeVisible();
  });
});

test('a note is caught on one screen without scrolling; from memory four in a row keep what stays; what is still going is closed from anywhere', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Ansel', 'note');
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeLessThanOrEqual(800);
  await expect(page.getByText('Location: choose')).toBeVisible();
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await page.getByLabel('Date', { exact: true }).fill('2026-11-23');
  await page.getByLabel('Time', { exact: true }).fill('09:10');
  // The timetable says where that was.
  await expect(page.getByRole('combobox', { name: 'Where', exact: true })).toHaveValue(
    await choiceId(app, student, 'Workshop'),
  );
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByText('Say what happened.')).toBeVisible();
  const times = ['09:10', '09:20', '10:05', '10:40'];
  for (const [i, time] of times.entries()) {
    await page.getByLabel('Time', { exact: true }).fill(time);
    await chip(page, 'Leaves the bench').click();
    if (i === 0) {
      await page.getByRole('button', { name: 'Other: antecedent' }).click();
      await page.keyboard.type('The bell rang');
      await page.keyboard.press('Enter');
    }
    if (i === 1) await chip(page, '5 min').first().click();
    await page.getByRole('button', { name: 'Save and add another' }).click();
    await expect(chip(page, 'Leaves the bench')).toHaveAttribute('aria-pressed', 'false');
    await expect(page.getByLabel('Date', { exact: true })).toHaveValue('2026-11-23');
  }
  const notes = await newest(app);
  expect(notes.map(({ observed_on, observed_time }) => `${observed_on} ${observed_time}`).sort()).toEqual(
    times.map((time) => `2026-11-23 ${time}`),
  );
  const workshop = await choiceId(app, student, 'Workshop');
  const named = await Promise.all(notes.map((note) => namedBy(app.db, note)));
  expect(named.map(({ location }) => location)).toEqual(notes.map(() => [workshop]));

  // What was typed is offered from then on, marked as new; it becomes a choice in one tap.
  await open(app, page, 'Ansel', 'note');
  await expect(chip(page, 'The bell rang new')).toBeVisible();
  await page.goto(`/students/${student}/incidents/${notes[named.findIndex(({ antecedent }) => antecedent)]!.id}`);
  await page.getByRole('button', { name: 'Add to choices' }).click();
  await expectToast(page, 'Added to the choices.');
  await open(app, page, 'Ansel', 'note');
  await chip(page, 'The bell rang').click();
  await chip(page, 'Covers ears and shouts').click();
  await chip(page, 'Still going').click();
  await page.getByRole('button', { name: 'Yes', exact: true }).click();
  await chip(page, '1 min').last().click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Ansel: an ABC incident.');
  await page.goto('/students');
  await settled(page);
  const going = page.getByRole('region', { name: 'Still going' });
  await expect(going).toContainText('Ansel D.: since 15:3');
  expect(await axeFindings(page)).toEqual([]);
  // Without the server the end waits too, with the time at which it was said.
  app.wire.cut();
  await going.getByRole('button', { name: 'It has ended' }).click();
  await expect(going).toContainText('Ended; waits to be sent', { timeout: 20_000 });
  app.wire.mend();
  await expectToast(page, 'It has an end now.');
  await expect(going).toBeHidden();
  const [closed] = await newest(app);
  expect(closed).toMatchObject({ is_going: false, seconds: 30, version: 2, resolved: true, resolved_after: 60 });
});

test('without the server a note waits on the device, can be changed there, and lands once; a draft is picked up again', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Emrys', 'note');
  await chip(page, 'Calls out').click();
  await expect(page.getByText('Kept on this device ✓')).toBeVisible();
  await page.reload();
  await settled(page);
  await expect(page.getByText('Picked up where you left off ✓')).toBeVisible();
  await expect(chip(page, 'Calls out')).toHaveAttribute('aria-pressed', 'true');
  // The dialog is fetched ahead, for when there is no server.
  await page.waitForTimeout(3500);
  await page.context().setOffline(true);
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await page.getByRole('button', { name: '1 waiting to be sent' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Calls out.');
  await dialog.getByRole('button', { name: 'Change' }).click();
  await dialog.getByRole('button', { name: 'Peers laughed' }).click();
  expect(await axeFindings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Keep the change' }).click();
  await expect(dialog).toContainText('Then: “Peers laughed”.');
  await page.keyboard.press('Escape');
  await page.context().setOffline(false);
  await expect(page.getByRole('button', { name: /waiting to be sent/ })).toHaveCount(0, { timeout: 20_000 });
  const notes = await newest(app);
  expect(notes).toHaveLength(1);
  expect((await namedBy(app.db, notes[0]!)).consequence).toEqual([await choiceId(app, student, 'Peers laughed')]);

  // Corrected with its history, withdrawn with its reason.
  await page.goto(`/students/${student}/incidents/${notes[0]!.id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  const form = page.getByRole('region', { name: 'Correct this incident' });
  await form.getByRole('button', { name: 'Waiting for a turn' }).click();
  await form.getByRole('button', { name: 'Save the correction' }).click();
  await expect(form.getByText('Say why, in a few words.')).toBeVisible();
  await form.getByLabel('Why is it corrected?').fill('I saw what came before.');
  expect(await axeFindings(page)).toEqual([]);
  await form.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'Corrected. What it said before is kept.');
  await expect(page.getByRole('main')).toContainText('Before: “Waiting for a turn”');
  await expect(page.getByRole('complementary')).toContainText('“I saw what came before.”');
  await page.getByRole('button', { name: 'Withdraw entry' }).click();
  await page.getByLabel('Why is it withdrawn?').fill('It was another student.');
  await page.getByRole('button', { name: 'Withdraw entry' }).click();
  await expect(page.getByText('Withdrawn by H. Bruun').first()).toBeVisible();
  await page.goto(`/students/${student}/incidents?from=2026-11-24`);
  await expect(page.getByText('There is no such incident.')).toBeVisible();
});

test('counts make a rate, none occurred among them; two observers of a window are compared', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Emrys', 'counts/new');
  const more = page.getByRole('button', { name: 'One more of Calls out' });
  for (let i = 0; i < 3; i++) await more.click();
  await page.getByRole('button', { name: 'One less of Calls out' }).click();
  await expect(page.getByRole('complementary')).toContainText('Calls out: 2 times in 2 h observed (Afternoon work).');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Emrys: 1 count.');
  await open(app, page, 'Emrys', 'counts/new');
  await page.getByLabel('Part of the day').selectOption('Lunch');
  await page.getByLabel('Second observer beside').selectOption('P. Ibarra');
  await page.getByRole('button', { name: 'None occurred' }).click();
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Emrys: 1 count.');
  const rows = await app.db('entries').where('recorded_at', '>', '2026-11-24T20:29:00Z').orderBy('observed_time');
  expect(rows.map(({ part, minutes, count }) => [part, minutes, count])).toEqual([
    ['Lunch', 45, 0],
    ['Afternoon work', 120, 2],
  ]);
  await page.goto(`/students/${student}/counts/${rows[1]!.id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  await page.getByLabel('How often').fill('5');
  await page.getByLabel('Part of the day').selectOption('Lunch');
  await page.getByLabel('Observer').selectOption({ label: 'P. Ibarra' });
  await page.getByLabel('Why is it corrected?').fill('Checked my strokes.');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'Corrected. What it said before is kept.');
  await expect(page.getByRole('main')).toContainText('Calls out: 5 times in 2 h observed (Lunch).');
  expect(await axeFindings(page)).toEqual([]);

  // Two watched from ten to half past: the first noted at 10:03 and 10:21, the second beside her at 10:05 only.
  const [hanneke, pilar] = await Promise.all(
    ['Hanneke Bruun', 'Pilar Ibarra'].map(async (name) => (await app.db('people').where({ name }).first('id'))!.id),
  );
  const behavior = await choiceId(app, student, 'Calls out');
  const note = (time: string, observer: string, beside: string | null, i: number) => ({
    ...{
      id: `7f0f2c1e-5a0f-4d0c-8a43-00000000000${i}`,
      student_id: student,
      observed_on: '2026-11-24',
      observed_time: time,
    },
    ...{
      observer_id: observer,
      recorded_by: observer,
      recorded_at: new Date(),
      beside_id: beside,
      is_going: false,
      note: '',
    },
    named: { behavior: [behavior] },
  });
  await addIncident(app.db, note('10:03', hanneke!, null, 1));
  await addIncident(app.db, note('10:21', hanneke!, null, 2));
  await addIncident(app.db, note('10:05', pilar!, hanneke!, 3));
  await page.goto(`/students/${student}/behavior/agreement`);
  await settled(page);
  await page.getByLabel('Behavior').selectOption('Calls out');
  await page.getByLabel('One observer').selectOption('H. Bruun');
  await page.getByLabel('The other').selectOption('P. Ibarra');
  await page.getByLabel('From').fill('10:00');
  await page.getByLabel('To', { exact: true }).fill('10:30');
  await page.getByRole('button', { name: 'Compare' }).click();
  const agree = page.getByRole('region', { name: 'How far they agree' });
  await expect(agree).toContainText('H. Bruun recorded it 2 times, P. Ibarra once, in 3 intervals.');
  await expect(agree).toContainText('Interval by interval67%');
  await expect(agree).toContainText('Total count50%');
  expect(await axeFindings(page)).toEqual([]);
});

test('what is odd is kept and said: outside of the day, without an end, refused in words with nothing lost', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Linnea', 'note');
  // Her team leaves lengths and functions out.
  await expect(page.getByText('How long it lasted')).toHaveCount(0);
  await expect(page.getByText('What it may be for')).toHaveCount(0);
  await chip(page, 'Hums loudly').click();
  await page.getByLabel('Note').fill('On the bus.');
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await page.getByLabel('Date', { exact: true }).fill('2026-11-24');
  await page.getByLabel('Time', { exact: true }).fill('23:10');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByText('This lies in the future.')).toBeVisible();
  await expect(page.getByLabel('Note')).toHaveValue('On the bus.');
  await page.getByLabel('Time', { exact: true }).fill('07:05');
  await page.getByRole('combobox', { name: 'Second observer beside' }).selectOption('N. Haddad');
  await page.getByRole('combobox', { name: 'Second observer beside' }).selectOption('Nobody: this is the only one');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for Linnea: an ABC incident.');
  await page.getByRole('link', { name: '1 incident outside the day' }).click();
  await expect(page.getByRole('complementary')).toContainText('1 incident: as many as the figure counts.');
  await expect(page.getByRole('main')).toContainText('On the bus.');

  // One of yesterday that never ended: it says so everywhere, counts no length, and is closed by its length.
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const going = {
    ...{
      id: '7f0f2c1e-5a0f-4d0c-8a43-0000000000aa',
      student_id: student,
      observed_on: '2026-11-23',
      observed_time: '09:10',
    },
    ...{ observer_id: hanneke, recorded_by: hanneke, recorded_at: new Date(), is_going: true, note: '' },
    named: { behavior: [await choiceId(app, student, 'Hums loudly')] },
  };
  await addIncident(app.db, going);
  await page.goto('/');
  await settled(page);
  await page.getByRole('link', { name: 'Linnea P.: since Nov 23, without an end' }).click();
  await settled(page);
  await expect(page.getByRole('main')).toContainText('How long it lasted has not been said.');
  const form = page.getByRole('form', { name: 'When it ended' });
  await form.getByRole('button', { name: 'Close it' }).click();
  await expect(form.getByRole('alert')).toHaveText('It began on another day: say how long it lasted.');
  await form.getByLabel('It lasted, in minutes').fill('-3');
  await form.getByRole('button', { name: 'Close it' }).click();
  await expect(form.getByRole('alert')).toHaveText('It lasted more than no time.');
  expect(await axeFindings(page)).toEqual([]);
  await form.getByLabel('It lasted, in minutes').fill('2,5');
  await form.getByRole('button', { name: 'Close it' }).click();
  await expectToast(page, 'It has an end now.');
  await expect(page.getByRole('main')).toContainText('It lasted 2 min 30 s.');
  await expect(page.getByRole('region', { name: 'Still going' })).toHaveCount(0);

  // Two of the same minute are two; a choice that was retired meanwhile stays in its note.
  await app.db('behavior_targets').where({ student_id: student }).update({ state: 'retired' });
  await addIncident(app.db, { ...going, id: '7f0f2c1e-5a0f-4d0c-8a43-0000000000ab', is_going: false });
  await page.goto(`/students/${student}/incidents?from=2026-11-23&to=2026-11-23`);
  await expect(page.getByRole('row').filter({ hasText: '09:10' })).toHaveCount(2);
  await open(app, page, 'Linnea', 'note');
  await expect(page.getByText('No target behavior is set up for Linnea.')).toBeVisible();
});

test('with the discreet view on, nothing on the note’s screen or its tab says what it is', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Ansel', '');
  await page.getByRole('button', { name: 'Discreet off' }).click();
  await expect(page.getByRole('button', { name: 'Discreet on' })).toBeVisible();
  await settled(page);
  const told =
    /Ansel|Leaves|bench|Covers|shouts|tool|walk|Reminded|laughed|incident|behavior|antecedent|consequence|what happened|strong|resolved|escape|attention|sensory|look up/i;
  for (const view of ['note', 'counts/new', 'behavior', 'incidents', 'behavior/agreement']) {
    await page.goto(`/students/${student}/${view}`);
    await settled(page);
    expect(await page.title(), view).not.toMatch(told);
    const text = (await page.locator(view === 'note' ? 'main, aside, nav' : 'main').allTextContents()).join(' ');
    // The pages for looking call things by their trade’s names; the names of what is looked at are letters there too.
    expect(text, view).not.toMatch(
      view === 'note' ? told : /Ansel|Leaves|bench|Covers|shouts|tool|walk|Reminded|laughed/,
    );
  }
  await page.goto(`/students/${student}/incidents/new`);
  await settled(page);
  await chip(page, 'Ltb').click();
  await chip(page, 'Atsn').click();
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, 'Saved for AD.');
  const [note] = await newest(app);
  expect((await namedBy(app.db, note!)).behavior).toEqual([await choiceId(app, student, 'Leaves the bench')]);
  await page.goto('/patterns');
  await expect(page.getByRole('main')).toContainText('AD');
  await expect(page.getByRole('main')).not.toContainText('Ansel');
});

test('the page finds the demo’s patterns, and none where there is none; every figure opens its notes', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const margin = page.getByRole('complementary', { name: 'What stands out' });
  for (const [student, found] of [
    ['Emrys', ['Waiting for a turn before it', 'Lunch']],
    // One behavior only: nothing can be said of what comes before it.
    ['Ione', ['Afternoon work']],
    ['Ansel', ['Since “Ear defenders”', 'A walk away from the task after it']],
  ] as const) {
    await open(app, page, student);
    for (const title of found) await expect(margin.getByRole('heading', { name: title, exact: true })).toBeVisible();
  }
  expect(await axeFindings(page)).toEqual([]);
  await open(app, page, 'Linnea');
  await expect(margin).toContainText('Nothing stands out');
  await expect(margin.getByRole('listitem')).toHaveCount(0);

  const student = await open(app, page, 'Ansel');
  // Cells, bars, months, weeks and findings: as many notes stand behind each as it says.
  const counted = await page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLAnchorElement>('main a[href*="/incidents?"], aside a[href*="/incidents?"]'),
    ].flatMap((link) => {
      const texts = [...link.childNodes].map((node) => node.textContent);
      const said = `${link.getAttribute('aria-label') ?? ''} ${texts.join(' ')}`;
      const n = /(\d+) incidents?\b/.exec(said) ?? /(\d+) · \d+%/.exec(said) ?? /(\d+) of \d+/.exec(said);
      return n ? [{ href: link.getAttribute('href') ?? '', n: Number(n[1]), said }] : [];
    }),
  );
  expect(counted.length).toBeGreaterThan(40);
  for (const { href, n, said } of counted.filter((_, i) => i % 4 === 0)) {
    const answer = await page.request.get(href);
    expect(await answer.text(), said).toContain(
      `${n} ${n === 1 ? 'incident' : 'incidents'}: as many as the figure counts.`,
    );
  }

  // A filter shows at once; two stretches stand side by side.
  await page.getByLabel('Recorded by').selectOption('N. Haddad');
  await expect(page).toHaveURL(/observer=/);
  await settled(page);
  await page.getByText('Against other dates').click();
  await page.getByLabel('Other dates, from').fill('2026-09-08');
  await page.getByLabel('Other dates, to').fill('2026-10-09');
  await expect(page.getByRole('region', { name: 'Two periods side by side' })).toContainText('Incidents a school day');
  expect(await axeFindings(page)).toEqual([]);

  // A phase is taken away and written down anew.
  await open(app, page, 'Ansel');
  await page.getByRole('button', { name: 'Remove “Ear defenders”' }).click();
  await expectToast(page, 'Removed. The incidents are unchanged.');
  await page.getByText('Something changed', { exact: true }).click();
  await page.getByRole('button', { name: 'Add the change' }).click();
  await expect(page.getByText('Say what changed.')).toBeVisible();
  await page.getByLabel('What changed').fill('Quiet corner');
  await page.getByLabel('From', { exact: true }).last().fill('2026-10-20');
  await page.getByRole('button', { name: 'Add the change' }).click();
  await expect(margin.getByRole('heading', { name: 'Since “Quiet corner”' })).toBeVisible();

  // The figures are those of the analysis of the file.
  await page.goto(`/students/${student}/behavior?from=2026-09-08&to=2026-11-24`);
  await settled(page);
  await page.getByText('Check it yourself').click();
  const folder = await mkdtemp(join(tmpdir(), 'incidents-'));
  for (const name of ['Incidents', 'Timetable', 'Observation windows']) {
    const address = await page.getByRole('link', { name: `${name} (CSV)` }).getAttribute('href');
    const called = /([a-z]+)\.csv/.exec(address ?? '')?.[1] as string;
    await writeFile(join(folder, `${called}.csv`), await (await page.request.get(address ?? '')).body());
  }
  const command = (await page.locator('pre').textContent()) ?? '';
  expect(command).toContain('--closures 2026-10-12,2026-11-11 --timetable timetable.csv');
  const words = command.trim().split(' ').slice(1);
  const { stdout } = await run(
    'npm',
    words.map((word) => (word.endsWith('.csv') ? join(folder, word) : word)),
  );
  const analysis = JSON.parse(stdout);
  const leaves = analysis.behaviors.find(({ name }: { name: string }) => name === 'Leaves the bench');
  const body = page.getByRole('main');
  await page.goto(
    `/students/${student}/behavior?from=2026-09-08&to=2026-11-24&behavior=${await choiceId(app, student, 'Leaves the bench')}`,
  );
  await expect(body).toContainText(
    `${leaves.n} incidents in ${analysis.schoolDays} school days: ${round(leaves.perSchoolDay.rate)} a day`,
  );
  for (const { name, n, share } of [...leaves.antecedents, ...leaves.consequences, ...leaves.settings]) {
    await expect(body.getByRole('link', { name: `${name} ${n} · ${Math.round(100 * share)}%` }).first()).toBeVisible();
  }
  for (const { antecedent, consequence, n, of } of leaves.chains.slice(0, 3)) {
    await expect(body).toContainText(`${antecedent} → Leaves the bench → ${consequence}${n} of ${of}`);
  }
  // What stands out rests on the hours of the timetable: the same findings, in the same words.
  for (const { sentence, about } of analysis.findings) {
    if (about.behavior === 'Leaves the bench') await expect(margin).toContainText(sentence);
  }
  for (const { month, rate, exposure } of leaves.months) {
    await expect(
      body.getByRole('link', { name: new RegExp(`^${round(rate)} .* in ${exposure} school days$`) }).first(),
      month,
    ).toBeVisible();
  }
});

/** As rates are said: one decimal. */
const round = (rate: number) => String(Math.round(rate * 10) / 10);

test('what is noted is set up: reordered, questioned, merged, brought back; the day has the student’s own parts', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Emrys', 'behavior/set-up');
  expect(await axeFindings(page)).toEqual([]);
  // Copied choices are put into the form, to be looked through: nothing is saved by it.
  const choicesNow = () => app.db('behavior_choices').where({ student_id: student }).orderBy('id').pluck('id');
  const before = await choicesNow();
  const ownTargets = await page.getByLabel('What it looks like').count();
  expect(ownTargets).toBeGreaterThan(0);
  await page.getByLabel('Copy choices from').selectOption('Ione C.');
  await page.getByRole('button', { name: 'Add what is missing here' }).click();
  await expect(page.getByText(/ choices? added to the lists below\. Nothing is saved yet/)).toBeVisible();
  const targets = page.getByLabel('What it looks like');
  expect(await targets.count()).toBeGreaterThan(ownTargets);
  expect(await choicesNow()).toEqual(before);
  await page.goto(`/students/${student}/behavior/set-up`);
  await settled(page);
  await expect(targets).toHaveCount(ownTargets);
  await page.getByRole('button', { name: 'Move antecedent 2 up' }).click();
  await page.getByRole('button', { name: 'Add an antecedent' }).click();
  await page.getByLabel('antecedent 7', { exact: true }).fill('asked to  begin');
  await page.getByLabel('What it looks like').first().fill('Speaks to the room while somebody else does.');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('“Asked to begin” is there already. Do they mean different things?')).toBeVisible();
  await page.getByRole('button', { name: 'Remove antecedent 7' }).click();
  await page.getByRole('button', { name: 'Remove consequence 5' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expectToast(page, 'The behavior setup is saved.');
  const names = await app
    .db('behavior_choices')
    .where({ student_id: student, kind: 'antecedent', state: 'offered' })
    .orderBy('position')
    .pluck('name');
  expect(names.slice(0, 2)).toEqual(['Waiting for a turn', 'Asked to begin']);
  await page.getByText('Earlier definitions').click();
  await expect(page.getByRole('complementary')).toContainText('Speaks to the whole room without a raised hand');
  await page.getByRole('button', { name: 'Bring it back: Nothing followed' }).click();
  await expectToast(page, 'Added to the choices.');
  await settled(page);
  await page.getByLabel('Merge this one').selectOption('Reminded in words');
  await page.getByLabel('into this one').selectOption('Asked to begin');
  await page.getByRole('button', { name: 'Merge them' }).click();
  await expect(page.getByText('Choose another one of the same list.')).toBeVisible();
  await page.getByLabel('Merge this one').selectOption('Reminded in words');
  await page.getByLabel('into this one').selectOption('Helped to begin');
  await page.getByRole('button', { name: 'Merge them' }).click();
  await expectToast(page, 'Merged, in earlier incidents too.');
  await settled(page);
  await page.getByRole('button', { name: 'Add a part of the day' }).click();
  await page.getByLabel('Part of the day', { exact: true }).fill('Speech');
  await page.getByLabel('From', { exact: true }).fill('09:00');
  await page.getByLabel('To', { exact: true }).fill('09:30');
  await page.getByRole('button', { name: 'Save the timetable' }).click();
  await expectToast(page, 'The timetable is saved.');
  await open(app, page, 'Emrys');
  await expect(page.getByRole('rowheader', { name: '09:00 Speech' })).toBeVisible();
  await expect(page.getByRole('main')).not.toContainText('Reminded in words');

  // The school’s starting lists, and a student who begins with them.
  await page.goto('/school/choices');
  await settled(page);
  await page.getByLabel('antecedent 1', { exact: true }).fill('A bell');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expectToast(page, 'The starting lists are saved.');
  await open(app, page, 'Briar', 'note');
  await page.getByRole('link', { name: 'Set up behavior' }).click();
  await settled(page);
  await expect(page.getByLabel('antecedent 1', { exact: true })).toHaveValue('A bell');
  await page.getByRole('button', { name: 'Add a target behavior' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Type what it is called.')).toBeVisible();
  await page.getByLabel('Called').fill('Hides under the table');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expectToast(page, 'The behavior setup is saved.');
  await open(app, page, 'Briar', 'note');
  await expect(chip(page, 'Hides under the table')).toBeVisible();
  await expect(chip(page, 'A bell')).toBeVisible();
});

test('across students: one scale, who changed, a group; on paper each page holds one student; a way in shows it or not', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/patterns');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const main = page.getByRole('main');
  await expect(main).toContainText('4 students with incidents');
  await expect(main.getByRole('img', { name: /^Weeks from/ })).toHaveCount(4);
  await expect(main).toContainText('A change of plan');
  for (const title of ['Behaviors', 'Consequences', 'Locations', 'Days']) {
    await expect(main.getByRole('heading', { name: `${title} with several students` })).toBeVisible();
  }
  const csv = await (await page.request.get('/patterns.csv?weeks=12')).text();
  expect(csv).toContain('what,name,incidents,per hour,students,who');
  expect(csv).toMatch(/\nantecedent,A change of plan,\d+,,\d,"?[A-Z]/);
  for (const text of await printedPages(page)) expect(text).toContain('Patterns across students · Sep 7 – Nov 24');
  await page.getByLabel('Group').selectOption('Kitchen group');
  await expect(main).toContainText('1 student with incidents');
  await expect(main).toContainText('Nothing recurs across students.');
  await expect(main).not.toContainText('Ansel');

  const student = await studentId(app.db, 'Ansel');
  const { id: note } = (await app.db('entries').where({ student_id: student, kind: 'incident' }).first('id'))!;
  for (const view of ['behavior', `incidents/${note}`]) {
    await page.goto(`/students/${student}/${view}`);
    await settled(page);
    for (const text of await printedPages(page)) {
      expect(text).toMatch(
        /Ansel D\. · (behavior · Leaves the bench|ABC incidents?) ·.* Quince Lane School · Tue, Nov 24, 2026/,
      );
      expect(text).not.toMatch(/Emrys|Briar|Find a student|What stands out/);
    }
  }

  // The notes of a range: no other day is on the paper.
  await page.goto(`/students/${student}/incidents`);
  await settled(page);
  await page.getByLabel('From', { exact: true }).fill('2026-10-05');
  await page.getByLabel('To', { exact: true }).fill('2026-10-09');
  await page.getByRole('button', { name: 'Show these days' }).click();
  await expect(page.getByRole('complementary')).toContainText('to Oct 9');
  const week = (await printedPages(page)).join(' ');
  expect(week).toContain('from Oct 5 · to Oct 9');
  expect(week.match(/(Mon|Tue|Wed|Thu|Fri), \w+ \d+/g)?.filter((day) => !/Oct [5-9]$|Nov 24/.test(day))).toEqual([]);

  // A way in shows behavior only where the case manager chose so.
  await page.goto(`/students/${student}/sharing/links`);
  await settled(page);
  await page.getByLabel('Who will read').fill('Aunt Ida');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = new URL(await page.getByLabel('The link', { exact: true }).inputValue()).pathname;
  const hidden = await (await page.request.get(link)).text();
  expect(hidden).not.toContain('Leaves the bench');
  await page.goto(`/students/${student}/sharing/visibility`);
  await settled(page);
  await page.getByLabel('Behavior for Family').check();
  await page.getByRole('button', { name: 'Save what each reader sees' }).click();
  await expectToast(page, 'Saved. Every reader sees the report so from now on.');
  await page.goto(link);
  await settled(page);
  await page.getByLabel('Show').selectOption('Behavior');
  await expect(main.getByText(/^Leaves the bench\. Before:/).first()).toBeVisible();
  await expect(main.getByRole('listitem').filter({ hasText: 'Asks for' })).toHaveCount(0);
  expect(await main.textContent()).not.toMatch(/N\. Haddad|L\. Varga/);
});

test('by keyboard alone an incident is noted; the table of notes sorts and filters; who does not set up is not offered to', async ({
  app,
  page,
}) => {
  await signInAs(app, page, 'Noor Haddad');
  const student = await open(app, page, 'Ansel', '');
  await page.keyboard.press('i');
  await expect(page).toHaveURL(/\/incidents\/new$/);
  await settled(page);
  // A group has one stop for Tab; the arrows go on within it.
  for (const name of ['A change of plan', 'Covers ears and shouts', 'Reminded in words']) {
    const group = page.getByRole('group').filter({ has: page.getByRole('button', { name, exact: true }) });
    await group.getByRole('button').first().focus();
    for (let i = 0; i < 10 && !(await chip(page, name).evaluate((one) => one === document.activeElement)); i++)
      await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Space');
  }
  await expect(chip(page, 'Covers ears and shouts')).toHaveAttribute('aria-pressed', 'true');
  // Enter belongs to the control that has the focus; with none it saves.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Enter');
  await expectToast(page, 'Saved for Ansel: an ABC incident.');
  const [note] = await newest(app);
  expect((await namedBy(app.db, note!)).consequence).toEqual([await choiceId(app, student, 'Reminded in words')]);

  await expect(page.getByRole('link', { name: 'Behavior setup' })).toHaveCount(0);
  await expect(page.getByText('Something changed', { exact: true })).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Remove/ })).toHaveCount(0);
  await page.getByRole('link', { name: 'All incidents as a table' }).click();
  await settled(page);
  const table = page.getByRole('region', { name: 'Incidents, as a table' });
  const rows = table.getByRole('row');
  const all = await app.db('entries').where({ student_id: student, kind: 'incident' });
  await expect(rows).toHaveCount(all.length + 1);
  await expect(rows.nth(1)).toContainText('Tue, Nov 24');
  await table.getByRole('button', { name: 'When' }).click();
  await expect(rows.nth(1)).toContainText(/Sep [89]/);
  await page.getByRole('combobox', { name: 'Behavior' }).selectOption('Covers ears and shouts');
  const covers = await choiceId(app, student, 'Covers ears and shouts');
  const said = await Promise.all(all.map((one) => namedBy(app.db, one)));
  const few = said.filter(({ behavior }) => behavior?.includes(covers)).length;
  await expect(page.getByRole('status').filter({ hasText: 'of' })).toHaveText(`${few} of ${all.length} incidents`);
  await expect(rows).toHaveCount(few + 1);
  await table.getByRole('button', { name: 'Lasted' }).click();
  await expect(table.getByRole('columnheader', { name: 'Lasted' })).toHaveAttribute('aria-sort', /cending/);

  // Somebody else’s note can be read, not changed; one’s own can.
  const others = all.find(({ recorded_by, id }) => recorded_by !== note!.recorded_by && id !== note!.id);
  await page.goto(`/students/${student}/incidents/${others!.id}`);
  await settled(page);
  await expect(page.getByRole('button', { name: 'Correct entry' })).toHaveCount(0);
  await page.goto(`/students/${student}/incidents/${note!.id}`);
  await expect(page.getByRole('button', { name: 'Correct entry' })).toBeVisible();
});

test('per hour observed is another way to see whether something helped; each way is an address', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await open(app, page, 'Emrys');
  await page.getByText('Something changed', { exact: true }).click();
  await page.getByLabel('What changed').fill('A card to wait');
  await page.getByLabel('From', { exact: true }).last().fill('2026-10-20');
  await page.getByRole('button', { name: 'Add the change' }).click();
  const help = page.getByRole('region', { name: 'Before and after' });
  await expect(help).toContainText(/since “A card to wait”: [\d.]+ a school day before/);
  await page.getByRole('link', { name: 'Per hour observed' }).click();
  await expect(page).toHaveURL(/per=hour/);
  await expect(help).toContainText(/since “A card to wait”: [\d.]+ an hour observed before/);
  await help.getByText('The same numbers as a table').click();
  await expect(help.getByRole('row')).toHaveCount(3);
  expect(await axeFindings(page)).toEqual([]);
  // The figures are those of the counts themselves.
  const counts = await app
    .db('entries')
    .where({ student_id: student, kind: 'count' })
    .where('observed_on', '<', '2026-10-20');
  const hours = counts.reduce((sum, { minutes }) => sum + minutes! / 60, 0);
  const times = counts.reduce((sum, { count }) => sum + count!, 0);
  await expect(help).toContainText(`${round(times / hours)} an hour observed before`);
});

test('a note of several behaviors is found under each of them, and its file has every field', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  const behaviors: { id: string; name: string }[] = await app
    .db('behavior_choices')
    .where({ student_id: student, kind: 'behavior' })
    .orderBy('position')
    .select('id', 'name');
  const [one, other] = behaviors as [(typeof behaviors)[0], (typeof behaviors)[0]];
  const { id } = (await app
    .db('entries')
    .where({ student_id: student, kind: 'incident', withdrawn: false, beside_id: null })
    .orderBy('observed_on', 'desc')
    .orderBy('observed_time', 'desc')
    .first('id'))!;
  const together = [one.id, other.id];
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  await app.db.transaction(async (trx) => {
    await trx('entries')
      .where({ id })
      .update({
        ...{ note: 'Both at once.', resolved: true, version: 2 },
        ...{ changed_by: hanneke, changed_at: new Date(), change_reason: 'Both were seen.' },
      });
    const named = { entry_id: id, version: 2, student_id: student, facet: 'behavior' as const };
    await trx('incident_choices').insert(together.map((target_id, i) => ({ ...named, position: i + 1, target_id })));
  });
  await page.goto(`/students/${student}/incidents`);
  await settled(page);
  const filter = page.getByRole('combobox', { name: /^Behavior/ });
  await expect(filter.getByRole('option', { name: `${one.name}, ${other.name}` })).toHaveCount(0);
  for (const { name } of [one, other]) {
    await filter.selectOption(name);
    await expect(page.getByRole('row').filter({ hasText: 'Both at once.' })).toHaveCount(1);
  }
  const [head, ...rows] = (await (await page.request.get(`/students/${student}/incidents.csv`)).text()).split('\r\n');
  expect(head).toBe(
    '\uFEFFat,behavior,antecedent,consequence,location,observer,function,seconds,intensity,going,resolved,resolvedAfterSeconds,note,recordedBy,recordedAt,version,changedBecause',
  );
  expect(rows.find((row) => row.includes('Both at once.'))).toMatch(
    new RegExp(`${one.name}\\|${other.name}.*,yes,,Both at once\\.`),
  );
});
