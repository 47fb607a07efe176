// Setting up: the roster, the school, a plan, and goals of every kind.
import type { Page } from '@playwright/test';
import { axeFindings, expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';

async function fill(page: Page, values: Record<string, string>) {
  for (const [label, value] of Object.entries(values)) await page.getByLabel(label, { exact: true }).fill(value);
}

test('a student is put on the roster, asked about, archived and brought back', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/students');
  await page.getByRole('link', { name: 'the roster' }).click();
  await page.getByRole('link', { name: 'Add a student' }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Type the first name.')).toBeVisible();
  await fill(page, { 'First name': 'Ansell', 'Last name': 'Dorsey', Grade: 'Grade 6' });
  await page.getByLabel('Case manager').selectOption({ label: 'Hanneke Bruun' });
  await page.getByLabel('Garden group').check();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('There is already Ansel')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await expect(page.getByLabel('First name')).toHaveValue('Ansell');
  await page.getByLabel('Yes, this is someone else').check();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Ansell D.' })).toBeVisible();
  const address = new URL(page.url()).pathname.replace('/edit', '');

  // A new student has first steps, of which the next leads on; help stands beside them.
  await page.goto(address);
  await settled(page);
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps.getByRole('link')).toHaveText([
    'Plan dates and reporting periods',
    'Goals, word for word as in the plan',
    'A baseline for each goal',
    'The support team',
    'The first entry',
  ]);
  await expect(steps.getByRole('link', { name: 'A baseline for each goal' })).toHaveAttribute(
    'href',
    `${address}/goals/new`,
  );
  await page.getByText('How this works').click();
  await expect(page.getByText(/Every goal of this student/)).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}`);
  await expect(page.getByRole('region', { name: 'First steps' })).toHaveCount(0);

  await page.goto('/roster?group=Garden+group');
  await settled(page);
  await page.getByRole('searchbox').fill('ansell');
  await page.getByRole('button', { name: 'Archive Ansell Dorsey' }).click();
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  await expect(page.getByText('Nobody matches.')).toBeVisible();
  // Whoever was on the team reads the record, and adds nothing to it.
  expect(await (await page.request.get(address)).text()).toContain('Has left');
  expect((await page.request.get(`${address}/observe`)).status()).toBe(404);
  await page.getByRole('link', { name: 'Archived (1)' }).click();
  await page.getByRole('button', { name: 'Bring Ansell Dorsey back' }).click();
  await expect(page.getByRole('link', { name: 'Archived (0)' })).toBeVisible();
  expect(await (await page.request.get(address)).text()).not.toContain('Has left');
  expect((await page.request.get(`${address}/observe`)).status()).toBe(200);
});

test('the school’s closures and a plan’s periods are kept, and wrong dates are told at their field', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/school');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const before = await app.db('closures').select();
  await page.getByRole('button', { name: 'Add a closure' }).click();
  const row = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('button', { name: `Remove closure ${before.length + 1}` }) });
  await row.getByLabel('What it is').fill('Boiler repair');
  await row.getByLabel('First day').fill('2026-12-09');
  await row.getByLabel('Last day').fill('2026-12-08');
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expect(row.getByRole('alert')).toBeVisible();
  await row.getByLabel('Last day').fill('2026-12-10');
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expectToast(page, 'The school is saved.');
  expect(await app.db('closures').where({ label: 'Boiler repair' })).toHaveLength(1);

  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/edit`);
  await settled(page);
  await page.getByRole('button', { name: 'Add a period' }).click();
  await page.getByLabel('Called').last().fill('Extra report');
  await page.getByLabel('Ends on').last().fill('2031-01-01');
  await page.getByRole('button', { name: 'Save the plan' }).click();
  await expect(page.getByText('This lies outside of the plan.')).toBeVisible();
  await page.getByLabel('Ends on').last().fill('2027-01-29');
  // The other form of the page does not take with it what stands in this one.
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Another form on this page has changes that are not saved.')).toBeVisible();
  await expect(page.getByLabel('Ends on').last()).toHaveValue('2027-01-29');
  await page.getByRole('button', { name: 'Save the plan' }).click();
  await expectToast(page, 'The plan is saved.');
  expect(await axeFindings(page)).toEqual([]);
  expect(await app.db('reporting_periods').where({ label: 'Extra report' })).toHaveLength(1);
});

/** What is chosen, what is set, and the criterion as it is read out: the counts are worked out by hand. */
const kinds: [question: string, set: (page: Page) => Promise<void>, criterion: string][] = [
  [
    'How many go right',
    (page) => fill(page, { 'Planned in a session, if the goal says': '4' }),
    'Goal: all 4 (80%) on 3 of 4 days, with at least 2 tries a day.',
  ],
  [
    'Which ones',
    async (page) => {
      await page.getByLabel('Name of item 1').evaluate((input) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text', 'flour\nbowl\noven\n\nspoon\nrye');
        input.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      });
      await expect(page.getByLabel('Name of item 5')).toHaveValue('rye');
    },
    'Goal: 4 of 5 (80%) on 3 of 4 days, with at least 5 words a day.',
  ],
  ['How often', (page) => fill(page, { 'Value of the criterion': '7,5' }), 'Goal: at most 7.5 an hour on 3 of 4 days.'],
  ['How long', async (page) => void (await page.getByLabel('The value is').selectOption('episode')), ''],
  ['How soon', (page) => fill(page, { 'Value of the criterion': '15' }), 'Goal: at most 15 s on 3 of 4 days.'],
  [
    'How much of the time',
    (page) => fill(page, { 'Intervals in a session': '20' }),
    'Goal: 16 of 20 (80%) on 3 of 4 days, with at least 10 intervals a day.',
  ],
  ['How well', (page) => fill(page, { Criterion: 'Measures before cutting', 'Value of the criterion': '3' }), ''],
  ['How much altogether', (page) => fill(page, { 'What it should come to': '60' }), ''],
  ['Which steps', (page) => fill(page, { 'Name of step 1': 'Water on' }), ''],
  ['Reading aloud', (page) => fill(page, { 'Value of the criterion': '90' }), ''],
  [
    'How high',
    (page) => fill(page, { 'Unit, such as cm or kg': 'cm', 'Value of the criterion': '24' }),
    'Goal: at least 24 cm on 3 of 4 days.',
  ],
];

test('a long form asks before it is left with something that is not saved, and no more once it is', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Jory');
  await page.goto(`/students/${student}/goals/${await goalId(app.db, 'Jory', '1')}/edit`);
  await settled(page);
  await page.getByRole('textbox', { name: 'Short name' }).fill('Plants one row');
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  const question = page.getByRole('dialog', { name: 'Leave without saving?' });
  expect(await axeFindings(page)).toEqual([]);
  await question.getByRole('button', { name: 'Stay here' }).click();
  await expect(page.getByRole('textbox', { name: 'Short name' })).toHaveValue('Plants one row');
  await page.getByRole('button', { name: 'Save the goal' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Plants one row');
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Today', exact: true })).toBeVisible();
});

test('a goal that names another child says so while it is written', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/goals/new`);
  await settled(page);
  const field = 'The goal, word for word as the plan has it';
  await fill(page, { [field]: 'Shares the bench with Mrs Quist’s Briar, and Ansel asks.' });
  await expect(page.getByText(/^“.*Briar.*”.*another child\?/)).toBeVisible();
  await expect(page.getByText(/“Ansel”/)).toHaveCount(0);
});

test('goals of all eleven kinds are set up, with the observer’s sheet beside them', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  for (const [i, [question, set, criterion]] of kinds.entries()) {
    await page.goto(`/students/${student}/goals/new`);
    await settled(page);
    await page.getByRole('radio', { name: new RegExp(`^${question}`) }).check();
    const number = `${i + 10}`;
    const wording = `First line of ${number}\nsecond line 🌱`;
    await fill(page, { Number: number, 'Short name': question, 'The goal, word for word as the plan has it': wording });
    await set(page);
    const read = page.getByRole('status').filter({ hasText: /^Goal: / });
    if (criterion) await expect(read).toHaveText(criterion);
    const sentence = (await read.textContent()) ?? '';
    await page.getByRole('button', { name: 'Save the goal' }).click();
    await expectToast(page, `Goal ${number} is in the plan.`);
    await expect(page.getByText(sentence, { exact: true })).toBeVisible();
    const stored = await app.db('goals').where({ student_id: student, number }).first();
    expect(stored!.wording).toBe(wording);
  }
  const made = await app
    .db('goals as g')
    .join('goal_measures as m', 'm.goal_id', 'g.id')
    .where({ 'g.student_id': student })
    .whereRaw('g.number ~ ?', ['^(1[0-9]|20)$'])
    .select('m.measure');
  expect(new Set(made.map(({ measure }) => measure.kind)).size).toBe(11);
  await page.goto(`/students/${student}/observe`);
  await expect(page.getByRole('heading', { name: 'Reading aloud' })).toBeVisible();
});

test('what does not fit is told at its field, and nothing typed is lost', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Ansel')}/goals/new`);
  await settled(page);
  await fill(page, { Number: '1', 'Short name': 'Anything', 'The goal, word for word as the plan has it': 'Words.' });
  await fill(page, { 'Value of the criterion': 'lots', 'To be reached by': '2026-01-01' });
  await page.getByRole('button', { name: 'Save the goal' }).click();
  await expect(page.getByText('A number is missing here.')).toBeVisible();
  await fill(page, { 'Value of the criterion': '120' });
  await expect(page.getByText('This lies outside of 0 to 100%.')).toBeVisible();
  await expect(page.getByText('The target date lies after')).toBeVisible();
  await fill(page, { 'Value of the criterion': '80', 'To be reached by': '2027-05-01' });
  await page.getByRole('button', { name: 'Save the goal' }).click();
  await expect(page.getByText('Another goal has the number 1.')).toBeVisible();
  await expect(page.getByLabel('Short name')).toHaveValue('Anything');
  expect(await axeFindings(page)).toEqual([]);
});

test('other levels begin a new version from a day; old entries and the old wording stay readable', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Ansel', '1')];
  const { wording } = (await app.db('goals').where({ id: goal }).first('wording'))!;
  await page.goto(`/students/${student}/goals/${goal}`);
  const entries = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Entries' }) });
  const oldest = await entries.getByRole('row').last().textContent();
  await page.getByRole('link', { name: 'edit the goal' }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Add a level' }).click();
  await page.getByLabel('On its button').last().fill('Together');
  await page.getByLabel('In sentences').last().fill('doing it together');
  await page.getByLabel('The goal, word for word as the plan has it').fill('Said in another way.');
  await page.getByRole('button', { name: 'Save the goal' }).click();
  await expect(page.getByText('This changes what is recorded. Say from which day it holds')).toBeVisible();
  await page.getByLabel('Measured in this way from').fill('2026-11-24');
  await page.getByRole('button', { name: 'Save the goal' }).click();
  await expectToast(page, 'Goal 1 is changed.');
  await expect(page.getByText('Said in another way.')).toBeVisible();
  await page.getByText('Earlier texts of this goal').click();
  await expect(page.getByText(wording.split('\n')[0]!)).toBeVisible();
  expect(await app.db('goal_phases').where({ goal_id: goal, label: 'Measurement changed' })).toHaveLength(1);
  await expect(entries.getByRole('row').last()).toHaveText(oldest ?? '');
  expect(await axeFindings(page)).toEqual([]);

  await page.getByRole('link', { name: 'Observe' }).click();
  await page.getByRole('button', { name: 'Together' }).first().click();
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(page.getByText(/^Saved for Ansel/)).toBeVisible();
  const newest = await app.db('entries').where({ goal_id: goal }).orderBy('recorded_at', 'desc').first();
  expect(newest!.measure_version).toBe(2);
});

test('goals are put in order by key and by button, retired and brought back', async ({ app, page }) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/goals`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const order = async () =>
    (await app.db('goals').where({ student_id: student, retired_on: null }).orderBy('position')).map(
      ({ number }) => number,
    );
  const [first, second] = await order();
  await page.getByRole('button', { name: `Drag ${first}` }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(`is at the place of ${first} `)).toBeAttached();
  // the goal is picked up a moment before it listens to arrows: pressed too early, a key is pressed again
  await expect(async () => {
    await page.keyboard.press('ArrowDown');
    await expect(page.getByText(`is at the place of ${second} `)).toBeAttached({ timeout: 4000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect.poll(order).toEqual(expect.arrayContaining([first, second]));
  await expect.poll(async () => (await order())[0]).toBe(second);
  await page
    .getByRole('button', { name: `Move ${first}` })
    .first()
    .click();
  await expect.poll(async () => (await order())[0]).toBe(first);

  await page.getByRole('button', { name: `Retire ${first} ` }).click();
  await page.getByRole('radio', { name: 'Replaced by another goal' }).check();
  await page.getByLabel('Note').fill('A harder one follows.');
  await page.getByRole('button', { name: 'Retire', exact: true }).click();
  await expect(page.getByText(`replaced by ${second} on`)).toBeVisible();
  await page.goto(`/students/${student}/observe`);
  await expect(page.getByRole('heading', { name: 'Asks for a tool' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Sands to the line' })).toHaveCount(0);
  await page.goto(`/students/${student}/goals`);
  await settled(page);
  await page.getByRole('button', { name: `Bring back ${first} ` }).click();
  await expect.poll(order).toContain(first);
});

test('a goal begins from another student’s after the name is asked about, and from the goal bank', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const [ansel, other] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Fenna', '4')];
  await page.goto(`/students/${ansel}/goals/new?goal=${other}`);
  await settled(page);
  await expect(page.getByRole('heading', { name: 'The wording names Fenna 1 time' })).toBeVisible();
  await page.getByRole('link', { name: 'Put Ansel in' }).click();
  const words = page.getByLabel('The goal, word for word as the plan has it');
  await expect(words).toHaveValue(/^Ansel /);
  await expect(page.getByRole('radio', { name: /^Which ones/ })).toBeChecked();
  await page.goto(`/students/${ansel}/goals/${await goalId(app.db, 'Ansel', '1')}/edit`);
  await settled(page);
  await page.getByText('Put it into the school’s goal bank').click();
  await page.getByRole('button', { name: 'Put it there' }).click();
  await expect(page.getByRole('button', { name: 'In the goal bank ✓' })).toBeVisible();
  await page.goto(`/students/${await studentId(app.db, 'Linnea')}/goals/new`);
  await settled(page);
  await page.getByText('Begin from another goal or from the goal bank').click();
  await page
    .getByRole('link', { name: /^Sands to the line/ })
    .first()
    .click();
  await expect(words).toHaveValue(/Linnea/);
  expect(await axeFindings(page)).toEqual([]);
});
