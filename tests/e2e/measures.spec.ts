// Every measure observed in the browser: marked, read live, saved as it was marked, and corrected.
import type { Locator, Page } from '@playwright/test';
import {
  type App,
  expect,
  expectToast,
  goalId,
  newest,
  type Staff,
  settled,
  signInAs,
  studentId,
  test,
} from './fixtures';

const sheet = (page: Page, name: string) => page.getByRole('region', { name });

/** Opens the observing screen with one goal first, and counts what is tapped from the student's page on. */
async function begin(app: App, page: Page, firstName: string, number: string) {
  const student = await studentId(app.db, firstName);
  const goal = await goalId(app.db, firstName, number);
  await page.goto(`/students/${student}/observe?goal=${goal}`);
  await settled(page);
  return { student, goal };
}

async function save(page: Page, firstName: string) {
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expectToast(page, `Saved for ${firstName}: 1 goal.`);
}

test('items: one tap for any outcome of any; what is open is named, asked about where all are wanted, and stays blank', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const every = JSON.stringify({ requiresAll: true });
  await app
    .db('goal_measures')
    .where({ goal_id: await goalId(app.db, 'Fenna', '4') })
    .update({ measure: app.db.raw('measure || cast(? as jsonb)', [every]) });
  const { student, goal } = await begin(app, page, 'Fenna', '4');
  const card = sheet(page, 'Reads recipe words');
  await item(card, 'flour', 'Right').click();
  await item(card, 'knead', 'Incorrect').click();
  await page.keyboard.press('1');
  await expect(card).toContainText('Still open: measure, oven and timer');
  await expect(card).toContainText('67%');
  await expect(card).toContainText('2 of 3');
  await expect(card).toContainText('needs 5 of 6');
  await expect(page.getByRole('complementary')).toContainText('2 of 3 words right (67%). Incorrect: knead.');
  const before = (await newest(app))?.id;
  await page.keyboard.press('Enter');
  // It is said where one saves too, and what is open is in sight; a tap that follows at once is no answer to it.
  const words = 'Still open: measure, oven and timer. Mark them, or save again to leave them blank.';
  await page.keyboard.press('Enter');
  await expect(card).toContainText(words);
  await expect(page.locator('.save-bar')).toContainText(words);
  await expect(card.locator('[data-open]').first()).toBeInViewport();
  expect((await newest(app))?.id).toBe(before);
  await page.waitForTimeout(1100);
  await save(page, 'Fenna');
  expect((await newest(app))!.data).toEqual({
    items: [
      { item: 'flour', outcome: 'right' },
      { item: 'knead', outcome: 'incorrect' },
      { item: 'bowl', outcome: 'right' },
    ],
  });
  await page.goto(`/students/${student}/goals/${goal}`);
  const grid = page.getByRole('region', { name: 'Session by session' });
  await expect(grid.getByRole('columnheader').last()).toHaveText('So far');
  // The newest session is the last column: knead was missed, timer was not asked.
  await expect(
    grid
      .getByRole('row', { name: /^knead/ })
      .getByRole('cell')
      .nth(11),
  ).toContainText('incorrect');
  await expect(
    grid
      .getByRole('row', { name: /^timer/ })
      .getByRole('cell')
      .nth(11),
  ).toContainText('nothing recorded');
  await expect(grid.getByRole('row', { name: /^flour/ })).toContainText('known');
  await expect(page.getByRole('heading', { name: 'How much help, session by session' })).toHaveCount(0);
});

const item = (card: Locator, name: string, outcome: string) =>
  card.getByRole('group', { name, exact: true }).getByRole('button', { name: outcome });

const words = ['flour', 'knead', 'bowl', 'measure', 'oven', 'timer'];
/** What is tapped between “Observe” and “Save”, and how many taps it may be altogether. */
type Find = (card: Locator) => Locator;
const named =
  (name: string | RegExp): Find =>
  (card) =>
    card.getByRole('button', { name }).first();
const tapped: [what: string, student: string, goal: string, taps: Find[], all: number][] = [
  [
    'an item check of six words',
    'Fenna',
    'Reads recipe words',
    words.map((word) => (card) => item(card, word, 'Right')),
    8,
  ],
  ['ten trials', 'Emrys', 'Measures ingredients', Array(10).fill(named('Independent')), 12],
  ['a count of five', 'Hollis', 'Calls across the room', Array(5).fill(named(/one more/)), 7],
  ['a rubric of one criterion', 'Linnea', 'Writes up the day', [named(/^3/)], 3],
];

test('few taps from the student’s page: an item check 8, ten trials 12, a count of five 7, one rating 3', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  for (const [what, student, goal, taps, all] of tapped) {
    await page.goto(`/students/${await studentId(app.db, student)}`);
    await settled(page);
    let count = 0;
    const tap = async (where: Locator) => {
      await where.click();
      count++;
    };
    await tap(page.getByRole('link', { name: /^Observe/ }).first());
    for (const find of taps) await tap(find(page.getByRole('region', { name: goal, exact: true })));
    await tap(page.getByRole('button', { name: /^Save( ↵)?$/ }));
    await expectToast(page, `Saved for ${student}: 1 goal.`);
    expect([what, count]).toEqual([what, all]);
  }
});

test('count: a count with the time watched since the page was opened; none is a count', async ({ app, page }) => {
  await page.clock.install({ time: new Date('2026-11-24T15:30:00-05:00') });
  await signInAs(app, page);
  await begin(app, page, 'Hollis', '4');
  const card = sheet(page, 'Calls across the room');
  for (let i = 0; i < 5; i++) await card.getByRole('button', { name: /one more call/ }).click();
  await page.keyboard.press('1');
  await page.keyboard.press('u');
  await expect(card.getByRole('button', { name: '5 one more call' })).toBeVisible();
  await page.clock.fastForward(30 * 60_000);
  await expect(card).toContainText('10 an hour');
  await card.getByRole('button', { name: 'stop the clock' }).click();
  await card.getByLabel('Watched for').fill('25');
  await expect(card).toContainText('12 an hour');
  await save(page, 'Hollis');
  expect((await newest(app))!.data).toEqual({ count: 5, minutes: 25 });
  await begin(app, page, 'Hollis', '4');
  await sheet(page, 'Calls across the room').getByRole('button', { name: 'Watched, no calls' }).click();
  await page.clock.fastForward(10 * 60_000);
  await expect(page.getByRole('complementary')).toContainText(/No calls in 10(\.\d)? minutes\./);
});

test('duration: a stopwatch that loses nothing over a reload; each episode can be corrected', async ({ app, page }) => {
  await page.clock.install({ time: new Date('2026-11-24T15:30:00-05:00') });
  await signInAs(app, page);
  await begin(app, page, 'Ione', '5');
  const card = sheet(page, 'Stays with the work');
  await card.getByRole('button', { name: /start the stretch/ }).click();
  await page.clock.runFor(60_000);
  await expect(page.getByText('Kept on this device')).toBeVisible();
  await page.reload();
  await settled(page);
  await page.clock.runFor(30_000);
  await card.getByRole('button', { name: /stop this stretch/ }).click();
  await expect(card.getByLabel('1.')).toHaveValue(/1:3\d/);
  await card.getByLabel('1.').fill('2:00');
  await card.getByLabel('Session').fill('soon');
  await expect(card).toContainText('Write minutes and seconds, such as 1:30.');
  await card.getByLabel('Session').fill('1:00');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(card).toContainText('The stretches add up to 2 min, longer than the session of 1 min.');
  await expect(card.getByLabel('1.')).toHaveValue('2:00');
  await card.getByLabel('Session').fill('25 min');
  await save(page, 'Ione');
  expect((await newest(app))!.data).toEqual({ episodes: [120], sessionSeconds: 1500 });
});

test('latency: cue, then response, or none; a miss is not a time', async ({ app, page }) => {
  await page.clock.install({ time: new Date('2026-11-24T15:30:00-05:00') });
  await signInAs(app, page);
  await begin(app, page, 'Jory', '4');
  const card = sheet(page, 'Begins when asked');
  await page.keyboard.press('1');
  await page.clock.runFor(8000);
  await page.keyboard.press('1');
  await card.getByRole('button', { name: 'Give the cue' }).click();
  await page.clock.runFor(5000);
  await card.getByRole('button', { name: 'No response' }).click();
  await expect(page.getByRole('complementary')).toContainText(
    /No response within 30 seconds to 1 of 2 cues\. One began after 8(\.\d)? seconds\./,
  );
  await save(page, 'Jory');
  const { responses } = (await newest(app))!.data;
  expect(responses).toHaveLength(2);
  expect(Math.round(responses[0]!)).toBe(8);
  expect(responses[1]).toBeNull();
});

test('intervals: the ring asks at each end; what nobody answers is missed, not a no', async ({ app, page }) => {
  await page.clock.install({ time: new Date('2026-11-24T15:30:00-05:00') });
  await signInAs(app, page);
  await begin(app, page, 'Kestrel', '4');
  const card = sheet(page, 'Hands on the task');
  await card.getByRole('button', { name: /^Start/ }).click();
  await expect(card.getByRole('button', { name: 'Yes' })).toBeDisabled();
  await page.clock.runFor(16_000);
  await expect(card).toContainText('Interval 1: Was it there just now?');
  await card.getByRole('button', { name: 'Yes' }).click();
  await page.clock.runFor(30_000);
  await expect(card).toContainText('Interval 3');
  await page.keyboard.press('2');
  await expect(card).toContainText('1 missed');
  await card.getByRole('button', { name: 'Stop here' }).click();
  await save(page, 'Kestrel');
  expect((await newest(app))!.data).toEqual({ intervals: [true, null, false] });
});

test('rubric: levels as cards with their words; a second tap takes a rating back', async ({ app, page }) => {
  await signInAs(app, page);
  await begin(app, page, 'Linnea', '4');
  const card = sheet(page, 'Writes up the day');
  await page.keyboard.press('3');
  await card.getByRole('button', { name: /some sentences/ }).click();
  await expect(card).toContainText('2.5');
  await card.getByRole('button', { name: /some sentences/ }).click();
  await card.getByRole('button', { name: /whole sentences/ }).click();
  await expect(page.getByRole('complementary')).toContainText('What was done: 3, “tells it in order”.');
  await save(page, 'Linnea');
  expect((await newest(app))!.data.ratings.map((one: { points: number }) => one.points)).toEqual([3, 3]);
});

test('cumulative total and steps, for their own case manager', async ({ app, page }) => {
  await signInAs(app, page, 'Samir Tadesse');
  await begin(app, page, 'Marlow', '4');
  const hours = sheet(page, 'Hours of work');
  await hours.getByRole('button', { name: 'Kitchen' }).click();
  await hours.getByRole('button', { name: '+ 1 hour' }).click();
  await hours.getByLabel('Kitchen').fill('1.5');
  await expect(hours).toContainText(/of 40 hours/);
  await save(page, 'Marlow');
  expect((await newest(app))!.data).toEqual({ amounts: [{ amount: 1.5, category: 'kitchen' }] });

  await begin(app, page, 'Nell', '4');
  const washing = sheet(page, 'Washes a pot');
  for (const key of ['1', '1', '3', '4']) await page.keyboard.press(key);
  await page.keyboard.press('u');
  await expect(washing).toContainText('To teach next: Scrub inside');
  await washing.getByRole('group', { name: 'Rinse' }).getByRole('button', { name: 'Alone' }).click();
  await expect(washing).toContainText('75%');
  await save(page, 'Nell');
  expect((await newest(app))!.data.steps).toHaveLength(4);
});

test('reading aloud: timer, errors, words; a mistake is told at the goal and corrected later', async ({
  app,
  page,
}) => {
  await page.clock.install({ time: new Date('2026-11-24T15:30:00-05:00') });
  await signInAs(app, page);
  const { student } = await begin(app, page, 'Casimir', '4');
  const card = sheet(page, 'Reads aloud');
  await page.keyboard.press('1');
  for (const key of ['2', '2', '2', 'u']) await page.keyboard.press(key);
  await page.clock.runFor(60_000);
  await card.getByRole('button', { name: /stop reading/ }).click();
  await card.getByLabel('Words read').fill('1');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(card).toContainText('There are more errors than words read.');
  await card.getByLabel('Words read').fill('62');
  await expect(card).toContainText('97%, easy enough to read alone');
  await card.getByLabel('Time').fill('1:00');
  await expect(card).toContainText('60words correct per minute');
  await save(page, 'Casimir');
  const entry = await newest(app);
  expect(entry!.data).toEqual({ words: 62, errors: 2, seconds: 60 });

  await page.goto(`/students/${student}/entries/${entry!.id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  await page.getByRole('button', { name: '2 one more error' }).click();
  await page.getByLabel('Why is it corrected?').fill('I had missed one.');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expect(page.getByText('3 errors: 59 words correct per minute').first()).toBeVisible();
  expect((await app.db('entries').where({ id: entry!.id }).first())!.data).toMatchObject({ errors: 3 });
});

test('measurement: what is typed counts at once, can be mended, and an empty field is no zero', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await begin(app, page, 'Hollis', '5');
  const card = sheet(page, 'Digs to depth');
  await card.getByLabel('The spot').fill('24');
  await card.getByLabel('Another spot').fill('99');
  await card.getByLabel('Another spot').fill('27.5');
  // A number is typed anew: while its field is empty the others stay where they are.
  await card.getByLabel('2.').fill('');
  await expect(card.getByLabel('3.')).toHaveValue('27.5');
  await expect(card).toContainText('25.8 cm');
  await card.getByLabel('2.').fill('20');
  await expect(card).toContainText('23.8 cmmean');
  await card.getByRole('button', { name: 'Remove spot 2' }).click();
  await save(page, 'Hollis');
  expect((await newest(app))!.data).toEqual({ readings: [24, 27.5] });
});

test('trials as counts: they must add up, and say so until they do', async ({ app, page }) => {
  await signInAs(app, page);
  await begin(app, page, 'Emrys', '1a');
  const card = sheet(page, 'Measures ingredients');
  await card.getByRole('button', { name: 'Enter counts instead' }).click();
  await card.getByLabel('Independent').fill('3');
  await card.getByLabel('Spoken').fill('2');
  await expect(card).toContainText('5 of 6 accounted for');
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await expect(card).toContainText('The counts add up to 5, and there were 6 ingredients.');
  await expect(card.getByLabel('Independent')).toHaveValue('3');
  await card.getByLabel('Incorrect').fill('1');
  await save(page, 'Emrys');
  expect((await newest(app))!.data).toEqual({
    counts: { independent: 3, spoken: 2, incorrect: 1 },
    opportunities: 6,
  });
});

test('one support level for a whole session: how many went right with it, of how many', async ({ app, page }) => {
  await signInAs(app, page);
  await begin(app, page, 'Emrys', '1a');
  const card = sheet(page, 'Measures ingredients');
  await card.getByRole('button', { name: 'One support level for the session' }).click();
  await card.getByRole('button', { name: 'Spoken' }).click();
  await card.getByLabel('Right').fill('4');
  await expect(page.getByRole('complementary')).toContainText('With a spoken prompt: 4.');
  // Another level takes the same count along.
  await card.getByRole('button', { name: 'Independent' }).click();
  await expect(card.getByLabel('Right')).toHaveValue('4');
  await card.getByRole('button', { name: 'Spoken' }).click();
  await save(page, 'Emrys');
  expect((await newest(app))!.data).toEqual({ counts: { spoken: 4, incorrect: 2 }, opportunities: 6 });
});

test('a goal’s entries are sorted and filtered, and its sessions told apart by day and by person', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ione');
  await page.goto(`/students/${student}/goals/${await goalId(app.db, 'Ione', '5')}`);
  await settled(page);
  const table = page.getByRole('region', { name: 'Entries, as a table' });
  const all = await table.getByRole('row').count();
  await table.getByRole('button', { name: /^Value/ }).click();
  await expect(table.getByRole('columnheader', { name: /^Value/ })).toHaveAttribute('aria-sort', 'descending');
  const longest = await table.getByRole('row').nth(1).getByRole('cell').first().textContent();
  await table.getByRole('button', { name: /^Value/ }).click();
  await expect(table.getByRole('columnheader', { name: /^Value/ })).toHaveAttribute('aria-sort', 'ascending');
  await expect(table.getByRole('row').last().getByRole('cell').first()).toHaveText(longest ?? '');

  const people = page.getByRole('table', { name: 'Median by observer' });
  const first = people.getByRole('row').first();
  const name = (await first.getByRole('rowheader').textContent()) ?? '';
  const sessions = Number.parseInt((await first.getByRole('cell').last().textContent()) ?? '', 10);
  await page.getByRole('combobox', { name: /^By/ }).selectOption(name);
  await expect(page.getByText(`${sessions} of ${all - 1} entries`)).toBeVisible();
  await expect(table.getByRole('row')).toHaveCount(sessions + 1);
  for (const row of await table.getByRole('row').all()) await expect(row).toContainText(new RegExp(`${name}|By`));
});

test('every measure is corrected by its own sheet, keeps what it said, and has its page', async ({ app, page }) => {
  test.slow();
  const goals = await app
    .db('goals as g')
    .join('students as s', 's.id', 'g.student_id')
    .join('goal_measures as m', 'm.goal_id', 'g.id')
    .orderBy(['s.first_name', 'g.position'])
    .select('g.id', 'g.student_id', 'm.measure', 'g.short_name as name', 's.first_name as student');
  const first = new Map(goals.toReversed().map((goal) => [goal.measure.kind as string, goal]));
  expect(first.size).toBe(11);
  let who: Staff | null = null;
  const goalsOfBoth = [...first].sort(([, a], [, b]) => a.student.localeCompare(b.student));
  for (const [kind, { id: goal, student_id, name, student }] of goalsOfBoth) {
    const manager: Staff = ['Marlow', 'Nell'].includes(student) ? 'Samir Tadesse' : 'Hanneke Bruun';
    if (manager !== who) await signInAs(app, page, manager);
    who = manager;
    const entry = await app
      .db('entries')
      .where({ goal_id: goal, withdrawn: false, version: 1 })
      .whereNotNull('data')
      .first();
    await page.goto(`/students/${student_id}/entries/${entry!.id}`);
    await settled(page);
    await page.getByRole('button', { name: 'Correct entry' }).click();
    await page.locator('#session-time').fill('07:45');
    await page.getByLabel(/^Why/).fill('The clock was wrong.');
    await page.getByRole('button', { name: 'Save the correction' }).click();
    await expectToast(page, 'Corrected. What it said before is kept.');
    const after = await app.db('entries').where({ id: entry!.id }).first();
    // What was not touched came through the data sheet as it was.
    expect([kind, after!.version, after!.observed_time, after!.data]).toEqual([kind, 2, '07:45', entry!.data]);
    await page.goto(`/students/${student_id}/goals/${goal}`);
    await expect(page.getByRole('heading', { name })).toBeVisible();
    await expect(page.getByRole('complementary', { name: 'What it says' })).toContainText(/Now /);
    await expect(page.getByRole('table').filter({ hasText: 'What was seen' }).getByRole('row').nth(1)).toBeVisible();
  }
});
