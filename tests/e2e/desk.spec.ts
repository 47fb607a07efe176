// The students' own desks and the class board: a whole lesson, each in a browser of their own.
import type { Browser, Page } from '@playwright/test';
import { demoCards } from '~/demo/class-work';
import { type App, axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';

test.use({ ownServer: true });

async function sitDown(browser: Browser, app: App, words: string) {
  const context = await browser.newContext({ baseURL: app.url, viewport: { width: 390, height: 844 } });
  const desk = await context.newPage();
  await desk.goto('/desk');
  await desk.getByLabel('The four words on your card').fill(words.toUpperCase().replaceAll(' ', '-'));
  await desk.getByRole('button', { name: 'Open my desk' }).click();
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(/Hello \w/);
  return desk;
}

test('a lesson: cards, four desks and a board that is live, with the network cut once', async ({
  app,
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  await signInAs(app, page);

  // The work is made from a list of steps, and given to four.
  await page.goto('/class/works');
  await page.getByRole('link', { name: 'New work' }).click();
  await settled(page);
  await page.getByLabel('Name of the work').fill('Bird house, week 2');
  await page.getByLabel('Step 1', { exact: true }).fill('Measure');
  for (const [at, step] of ['Cut', 'Join'].entries()) {
    await page.getByRole('button', { name: 'Add a step' }).click();
    await page.getByLabel(`Step ${at + 2}`, { exact: true }).fill(step);
  }
  await page.getByRole('button', { name: 'Move step 3 up' }).click();
  await expect(page.getByLabel('Step 2', { exact: true })).toHaveValue('Join');
  await page.getByRole('button', { name: 'Workshop group' }).click();
  await page.getByRole('button', { name: 'Save work' }).click();
  await expect(page.getByRole('heading', { name: 'Bird house, week 2' })).toBeVisible();
  await expect(page.getByRole('main').getByText('Not begun')).toHaveCount(12);
  const board = new URL(page.url()).pathname;
  const workId = board.split('/').at(-1) ?? '';

  // Cards are made, and shown once.
  await page.goto('/class/cards');
  await settled(page);
  const chosen = page.getByRole('checkbox', { checked: true });
  while ((await chosen.count()) > 0) await chosen.first().uncheck();
  const names = ['Ansel', 'Briar', 'Casimir', 'Dahlia'];
  for (const name of names) await page.getByRole('checkbox', { name: new RegExp(name) }).check();
  await page.getByRole('button', { name: 'Make cards' }).click();
  const cards = page.getByRole('region', { name: 'New cards' });
  await expect(cards).toContainText('4 cards to print now.');
  const words = await Promise.all(
    names.map(async (name) => {
      const card = cards.getByRole('listitem').filter({ hasText: name });
      return (await card.getByText(/^([a-z]+ ){4}[a-z]+$/).textContent()) ?? '';
    }),
  );
  expect(await axeFindings(page)).toEqual([]);
  await page.goto(board);
  await settled(page);

  const desks: Page[] = [];
  for (const code of words) desks.push(await sitDown(browser, app, code));
  const [ansel, briar, casimir, dahlia] = desks as [Page, Page, Page, Page];
  // Ansel's and Briar's earlier work stands below this one; nobody else's name stands anywhere.
  await expect(ansel.getByRole('heading', { level: 1 })).toContainText('You are at step 1.');
  for (const other of ['Briar', 'Casimir', 'Dahlia']) await expect(ansel.getByText(other)).toHaveCount(0);

  const work = (desk: Page) => desk.getByRole('region', { name: 'Bird house, week 2' });
  const row = (name: string) => page.getByRole('row').filter({ hasText: name });
  await work(ansel).getByRole('button', { name: 'Stuck' }).click();
  await expect(row('Ansel')).toContainText('Stuck · now');
  await work(ansel).getByLabel('Where are you stuck?').fill('Which end is up?');
  await work(ansel).getByRole('button', { name: 'Tell my teacher' }).click();
  const needs = page.getByRole('complementary', { name: 'Needs somebody' });
  await expect(needs).toContainText('“Which end is up?” Stuck just now.');
  expect(await axeFindings(ansel)).toEqual([]);

  // Briar's tablet loses the network in the middle: what is tapped is kept, and said once.
  await briar.context().setOffline(true);
  await work(briar).getByRole('button', { name: 'Done' }).click();
  await expect(briar.getByText('No connection. What you tapped is kept here')).toBeVisible();
  await work(briar).getByRole('button', { name: 'At it' }).click();
  await expect(work(briar).getByRole('button', { name: 'At it' })).toHaveAttribute('aria-pressed', 'true');

  await work(casimir).getByRole('button', { name: 'Please look' }).click();
  await expect(row('Casimir')).toContainText('Please look · now');
  // Who is stuck comes before who only asks for a look.
  await expect(page.getByRole('row').nth(1)).toContainText('Ansel');
  await expect(page.getByRole('row').nth(2)).toContainText('Casimir');
  await page.getByRole('checkbox', { name: 'Casimir' }).check();
  await page.getByRole('button', { name: 'Mark as seen' }).click();
  await expectToast(page, 'Marked as seen.');
  await expect(row('Casimir')).toContainText('Please look · seen');
  await expect(needs).not.toContainText('Casimir');
  await expect(casimir.getByText('Your teacher has seen it.')).toBeVisible({ timeout: 20_000 });

  await briar.context().setOffline(false);
  await expect(row('Briar')).toContainText('At it');
  await expect(row('Briar').getByText('Done')).toHaveCount(1);
  const said = () => app.db('work_states').where({ work_id: workId }).orderBy('at').select('state', 'student_id');
  const ofBriar = (await said()).filter(({ student_id }) => student_id === briarId);
  expect(ofBriar.map(({ state }) => state)).toEqual(['done', 'atIt']);

  // The database is gone for a while; the desk goes on, and what it took arrives once.
  app.wire.cut();
  await work(dahlia).getByRole('button', { name: 'Done' }).click();
  await expect(dahlia.getByText('No connection. What you tapped is kept here')).toBeVisible();
  await dahlia.reload().catch(() => {});
  app.wire.mend();
  await expect(async () => {
    await dahlia.goto('/desk');
    await expect(dahlia.getByRole('heading', { level: 1 })).toContainText('You are at step 2.', { timeout: 3000 });
  }).toPass();
  await expect(row('Dahlia')).toContainText('Done', { timeout: 45_000 });
  expect((await said()).filter(({ state }) => state === 'done')).toHaveLength(2);

  // For the wall: how many are where, and no student.
  await page.goto(`${board}/projected`);
  await expect(page.getByRole('row', { name: /^1 Measure/ })).toContainText('2');
  for (const name of names) await expect(page.getByText(name)).toHaveCount(0);
  expect(await axeFindings(page)).toEqual([]);

  // A step is taken away while Briar is at it, without a network: a kind sentence, and nothing lost.
  await briar.context().setOffline(true);
  await work(briar).getByRole('button', { name: 'Done', exact: true }).click();
  await expect(briar.getByText('No connection. What you tapped is kept here')).toBeVisible();
  await page.goto(`${board}/edit`);
  await settled(page);
  await page.getByRole('button', { name: 'Remove step 2' }).click();
  await page.getByRole('button', { name: 'Save work' }).click();
  await expectToast(page, 'The work is kept.');
  await briar.context().setOffline(false);
  await expect(briar.getByText('Your teacher has taken this step away.')).toBeVisible();
  await expect(work(briar)).not.toContainText('Join');

  // Ansel's card is ended: the desk says so, and keeps what is tapped.
  await page.goto('/class/cards');
  await settled(page);
  await page.getByRole('button', { name: 'End Ansel D.’s card' }).click();
  await expectToast(page, 'The card is ended.');
  await work(ansel).getByRole('button', { name: 'Please look' }).click();
  await expect(ansel.getByText('Your desk was put away.')).toBeVisible();
  for (const desk of desks) await desk.context().close();
});

let briarId = '';
test.beforeEach(async ({ app }) => {
  briarId = await studentId(app.db, 'Briar');
});

test('a student keeps a log; it is marked as theirs, counts at once, and can be set aside', async ({
  app,
  page,
  browser,
}) => {
  const desk = await sitDown(browser, app, demoCards.Linnea ?? '');
  await desk.getByRole('link', { name: /^Plants I potted/ }).click();
  await settled(desk);
  const soFar = Number(await desk.locator('.text-5xl').textContent());
  await signInAs(app, page);
  await page.goto(`/students/${await studentId(app.db, 'Linnea')}`);
  await settled(page);

  const amount = desk.getByRole('textbox', { name: /How many plants/ });
  const save = desk.getByRole('button', { name: /^Save/ });
  for (const [typed, sentence] of [
    ['a lot', 'Type a number.'],
    ['10000', 'more than the whole 80'],
    ['-3', 'cannot be below nothing'],
  ] as const) {
    await amount.fill(typed);
    await save.click();
    await expect(desk.getByRole('alert')).toContainText(sentence);
    await expect(amount).toHaveValue(typed);
  }
  await amount.fill('5');
  await desk.getByRole('button', { name: 'Herbs', pressed: false }).click();
  await expect(desk.getByText(`With these it will be ${soFar + 5} of 80.`)).toBeVisible();
  expect(await axeFindings(desk)).toEqual([]);
  await save.click();
  await expect(desk.getByText('It is saved.')).toBeVisible();
  await expect(desk.locator('.text-5xl')).toHaveText(String(soFar + 5));

  // An open page of hers says that there is something new.
  await page.getByRole('button', { name: 'Show 1 new entry' }).click();
  const margin = page.getByRole('complementary');
  await expect(margin).toContainText('Student');
  await expect(margin).toContainText(`So far ${soFar + 5} of 80 plants`);

  // She corrects it the same day; it is one entry still.
  await desk.getByRole('button', { name: 'Change' }).first().click();
  await amount.fill('4');
  await desk.getByRole('button', { name: 'Change to 4 plants' }).click();
  await expect(desk.locator('.text-5xl')).toHaveText(String(soFar + 4));
  expect(await app.db('entries').where({ self_recorded: true, kind: 'goal' })).toHaveLength(1);

  // The case manager sets what she enters aside.
  await page.getByRole('link', { name: 'Sharing' }).click();
  await page.getByRole('link', { name: 'The student’s desk' }).click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('checkbox', { name: 'Their entries count' }).uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expectToast(page, 'The desk is kept.');
  await desk.reload();
  await expect(desk.locator('.text-5xl')).toHaveText(String(soFar));
  await expect(desk.getByText('Your teacher looks at these before they count.')).toBeVisible();

  // She says what she thinks of a piece before she sees what her teacher thinks; then both stand side by side.
  await desk.getByRole('link', { name: 'Back to my desk' }).click();
  await desk.getByRole('link', { name: /^How I did: Today’s page/ }).click();
  await expect(desk.getByRole('heading', { name: 'What do you think, before you see your teacher’s?' })).toBeVisible();
  expect(await axeFindings(desk)).toEqual([]);
  await desk.getByRole('button', { name: 'Rate it' }).click();
  await expect(desk.getByText('Rate at least one criterion.')).toBeVisible();
  for (const group of await desk.getByRole('group').all()) await group.getByRole('radio').first().check();
  await desk.getByLabel('In your own words').fill('I forgot the weather.');
  await desk.getByRole('button', { name: 'Rate it' }).click();
  await expect(desk.getByText('Your teacher has not rated it yet.')).toBeVisible();
  await expect(desk.getByText('I forgot the weather.')).toBeVisible();
  expect(await axeFindings(desk)).toEqual([]);

  await desk.getByRole('link', { name: 'Back to my desk' }).click();
  await desk.getByRole('link', { name: 'My progress' }).click();
  await expect(desk.getByText(`You have ${soFar} of 80 plants.`)).toBeVisible();
  await expect(desk.getByRole('img')).toHaveCount(2);
  expect(await axeFindings(desk)).toEqual([]);
  await desk.context().close();
});

test('a card that opens nothing says so; tries are counted, and a desk opens no page of the team', async ({
  app,
  browser,
}) => {
  const context = await browser.newContext({ baseURL: app.url });
  const desk = await context.newPage();
  await desk.goto('/desk');
  expect(await axeFindings(desk)).toEqual([]);
  await desk.getByLabel('The four words on your card').fill('acorn acorn acorn acorn');
  await desk.getByRole('button', { name: 'Open my desk' }).click();
  await expect(desk.getByRole('alert')).toContainText('These words open nothing.');
  await expect(desk.getByLabel('The four words on your card')).toHaveValue('acorn acorn acorn acorn');
  await desk.goto(`/desk/in/${'x'.repeat(43)}`);
  await expect(desk.getByRole('alert')).toContainText('These words open nothing.');
  for (let tries = 0; tries < 100; tries++) await context.request.get(`/desk/in/guess${tries}`, { maxRedirects: 0 });
  await desk.getByLabel('The four words on your card').fill(demoCards.Ione ?? '');
  await desk.getByRole('button', { name: 'Open my desk' }).click();
  await expect(desk.getByRole('alert')).toContainText('Too many tries.');

  await app.db('rate_limits').delete();
  const ione = await sitDown(browser, app, demoCards.Ione ?? '');
  const get = (path: string) => ione.request.get(path, { maxRedirects: 0 });
  expect((await get(`/students/${await studentId(app.db, 'Ione')}`)).status()).toBe(302);
  expect((await get('/live')).status()).toBe(302);
  expect((await get(`/desk/log/${crypto.randomUUID()}`)).status()).toBe(404);
  const others = await app
    .db('desk_goals')
    .whereNot({ student_id: await studentId(app.db, 'Ione') })
    .first('goal_id');
  expect((await get(`/desk/log/${others?.goal_id}`)).status()).toBe(404);
  const send = (path: string, data: unknown) =>
    ione.request.post(path, { data: data as object, headers: { origin: app.url } }).then((answer) => answer.status());
  const own = await studentId(app.db, 'Ione');
  expect(await send(`/desk/steps?of=${own}`, { id: 'x' })).toBe(400);
  // Said by somebody else, who sat at this tablet before: it is not taken for hers.
  expect(await send(`/desk/steps?of=${await studentId(app.db, 'Jory')}`, { id: 'x' })).toBe(401);
  expect(
    await context.request.post('/desk/steps', { data: {}, headers: { origin: app.url } }).then((a) => a.status()),
  ).toBe(401);
  await ione.getByRole('button', { name: 'Put my desk away' }).click();
  await expect(ione.getByRole('heading', { name: 'Hello.' })).toBeVisible();
  await ione.reload();
  await expect(ione.getByRole('heading', { name: 'Hello.', exact: true })).toBeVisible();
  await ione.context().close();
  await context.close();
});

test('on a shared tablet that a teacher opens, students take turns by their initials, and the teacher is signed out', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/class/cards');
  await settled(page);
  const chosen = page.getByRole('checkbox', { checked: true });
  while ((await chosen.count()) > 0) await chosen.first().uncheck();
  await page.getByRole('button', { name: 'Whose turn? on this device' }).click();
  await expect(page.getByText('Choose at least one student.')).toBeVisible();
  for (const name of ['Ione', 'Jory']) await page.getByRole('checkbox', { name: new RegExp(name) }).check();
  await page.getByRole('button', { name: 'Whose turn? on this device' }).click();
  await expect(page.getByRole('heading', { name: 'Whose turn?' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await expect(page.getByText('Ione')).toHaveCount(0);
  await page.getByRole('button', { name: 'It is IC’s turn' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Hello Ione.');
  await page.getByRole('button', { name: 'Put my desk away' }).click();
  await expect(page.getByRole('heading', { name: 'Whose turn?' })).toBeVisible();
  expect(await app.db('desk_sessions').where({ ended_at: null })).toHaveLength(0);
  await page.getByRole('button', { name: 'It is JW’s turn' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Hello Jory.');
  await page.goto('/students');
  await expect(page).toHaveURL(/sign-in/);
});

test('a board’s other sides: one step, by name, a round of the chosen, a copy, put away; in the school’s own words', async ({
  app,
  page,
  browser,
}) => {
  await signInAs(app, page);
  await page.goto('/class/works');
  await page.getByRole('link', { name: 'Potting, week 4' }).click();
  await settled(page);
  const names = async () => (await page.getByRole('rowheader').allInnerTexts()).map((text) => text.split('\n')[0]);
  expect((await names()).slice(0, 3)).toEqual(['Ansel', 'Jory', 'Kestrel']);
  await page.getByRole('link', { name: 'By name' }).click();
  await expect(page.getByRole('link', { name: 'By name' })).toHaveAttribute('aria-current', 'true');
  // By last name, as everywhere: Ansel Dorsey after Ione and Kestrel.
  await expect.poll(async () => (await names())[0]).toBe('Kestrel');
  await page.getByRole('columnheader', { name: '3 Set the plant' }).getByRole('link').click();
  await expect(page.getByRole('columnheader')).toHaveCount(2);
  await page.getByRole('link', { name: 'All 5 steps' }).click();
  await expect(page.getByRole('columnheader')).toHaveCount(6);
  await expect(page.getByText('Most were stuck at 2 Fill it (3 of 6 students, median 5 min).')).toBeVisible();

  await page.getByRole('checkbox', { name: 'Ansel' }).check();
  await page.getByRole('checkbox', { name: 'Jory' }).check();
  await expect(page.getByText('2 chosen: ')).toBeVisible();
  await page.getByRole('link', { name: 'Observe these 2' }).click();
  await expect(page.getByRole('heading', { name: 'A round, 2 students' })).toBeVisible();

  // A copy has the steps, and nothing of what was said of them; its steps are put in order by hand.
  await page.goto('/class/works');
  await settled(page);
  await page.getByRole('link', { name: 'Copy' }).click();
  await settled(page);
  await expect(page.getByLabel('Name of the work')).toHaveValue('Potting, week 4');
  await page.getByLabel('Name of the work').fill('Potting, week 5');
  const from = (await page.getByTitle('Drag step 4').boundingBox())!;
  const to = (await page.getByTitle('Drag step 1').boundingBox())!;
  await page.mouse.move(from.x + 10, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 10, from.y - 20, { steps: 4 });
  await page.mouse.move(to.x + 10, to.y + 5, { steps: 12 });
  await page.mouse.up();
  await expect(page.getByLabel('Step 1', { exact: true })).toHaveValue('Press and water');
  await page.getByRole('button', { name: 'Save work' }).click();
  await expect(page.getByText('Nobody has this work yet.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Potting, week 5' })).toBeVisible();

  // Put away, the first stands on no desk; taken out again, it does, as it was.
  const linnea = await sitDown(browser, app, demoCards.Linnea ?? '');
  await expect(linnea.getByRole('heading', { level: 1 })).toContainText('You are at step 3.');
  await page.goto('/class/works');
  await settled(page);
  const first = page.getByRole('listitem').filter({ hasText: 'Potting, week 4' });
  await first.getByRole('button', { name: 'Put away' }).click();
  await expectToast(page, 'The work is put away. It stands on no desk any more.');
  await linnea.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(linnea.getByText('This work is put away. Ask your teacher.')).toBeVisible();
  await expect(linnea.getByRole('heading', { level: 1 })).toHaveText('Hello Linnea.');
  await page.getByText('1 put away').click();
  await first.getByRole('button', { name: 'Take out again' }).click();
  await expectToast(page, 'The work is on the desks again.');

  // A school may say “I need help”; the meaning stays.
  await page.goto('/school');
  await settled(page);
  await page.getByLabel('Stuck').fill('I need help');
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expectToast(page, 'The school is saved.');
  await linnea.reload();
  await linnea.getByRole('button', { name: 'I need help' }).click();
  await page.goto('/class/works');
  await page.getByRole('link', { name: 'Potting, week 4' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Linnea' })).toContainText('I need help · now');
  await linnea.context().close();
});

test('in the discreet view a board has initials only, and who is not on a team sees nothing of it', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const { id } = (await app.db('works').first('id'))!;
  await page.goto(`/class/works/${id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Discreet off' }).click();
  await expect(page.getByRole('rowheader').first()).toContainText('AD');
  for (const name of Object.keys(demoCards)) await expect(page.getByText(name)).toHaveCount(0);
  expect(await axeFindings(page)).toEqual([]);
  // Lotte is on the teams of two of the six.
  await signInAs(app, page, 'Lotte Varga');
  await page.goto(`/class/works/${id}`);
  await settled(page);
  await expect(page.getByRole('rowheader')).toHaveCount(2);
});
