// Forms, feedback among classmates, and stacks that several people rate: by the real pages, each in a browser of their own.
import { readFileSync } from 'node:fs';
import type { Browser, Page } from '@playwright/test';
import { demoCards } from '~/demo/class-work';
import { type App, axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';

async function sitDown(browser: Browser, app: App, name: string) {
  const context = await browser.newContext({ baseURL: app.url, viewport: { width: 390, height: 844 } });
  const desk = await context.newPage();
  await desk.goto('/desk');
  await desk.getByLabel('The four words on your card').fill(demoCards[name] ?? '');
  await desk.getByRole('button', { name: 'Open my desk' }).click();
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText(/Hello \w/);
  return desk;
}

/** On a device of its own, by an address that was shown. */
async function elsewhere(browser: Browser, app: App, href: string) {
  const context = await browser.newContext({ baseURL: app.url, viewport: { width: 390, height: 844 } });
  const device = await context.newPage();
  await device.goto(new URL(href).pathname);
  return device;
}

const formIdOf = async (app: App, side: 'staff' | 'self' | 'classmates') =>
  (await app.db('forms').where({ side }).first('id'))!.id;

/** A picture of 30 by 20 dots. */
const picture = { name: 'shelf.png', mimeType: 'image/png' };
const bytes = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAIAAAD91JpzAAAAFklEQVR4nGP8z8DAwMDAxMDAwMDAAAANHQEDasKb6QAAAABJRU5ErkJggg==',
  'base64',
);

test('a note about a student who has no goal for it: asked about what is open, with a picture, in the report, corrected', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const briar = await studentId(app.db, 'Briar');
  await page.goto(`/students/${briar}`);
  await settled(page);
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'A skill I saw · Briar Q.' })).toBeVisible();
  await settled(page);
  await page.getByRole('button', { name: 'With a reminder' }).click();
  await page.getByLabel('A picture of it').setInputFiles({ ...picture, buffer: bytes });
  await expect(page.getByAltText('The photograph that comes along')).toBeVisible();
  await expect(page.getByText('How much help did it take? With a reminder.')).toBeVisible();
  await page.getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText('1 question is still open.', { exact: false })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);

  // Nothing typed is lost by leaving.
  await page.getByLabel('What did they do?').fill('Swept the bench with Ansel.');
  await expect(page.getByText('Kept on this device')).toBeVisible();
  await page.goto('/');
  await page.goto(`/students/${briar}/notes/new`);
  await expect(page.getByLabel('What did they do?')).toHaveValue('Swept the bench with Ansel.');
  await expect(page.getByRole('status').filter({ hasText: 'Ansel' })).toBeVisible();
  await page.getByRole('button', { name: /^Save/ }).click();
  await expectToast(page, 'Saved for Briar: a note.');

  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Briar Q.');
  const line = page.getByRole('listitem').filter({ hasText: 'A skill I saw' }).first();
  await expect(line).toContainText(
    'What did they do? “Swept the bench with Ansel.” How much help did it take? With a reminder.',
  );
  await expect(line.getByRole('img')).toHaveCount(1);
  await line.getByRole('link', { name: 'A skill I saw' }).click();
  await expect(page.getByText('left open')).toBeVisible();
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  await page.getByRole('button', { name: 'Alone', exact: true }).click();
  await page.getByLabel('Why is it corrected?').fill('I looked at it once more.');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'Corrected. What it said before is kept.');
  await expect(page.getByRole('complementary')).toContainText('With a reminder');
  await expect(page.getByRole('main').getByText('Alone').first()).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
});

test('a form is begun from one that ships, changed while it is answered, answered without a network, and read side by side', async ({
  app,
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  await signInAs(app, page);
  await page.goto('/class/forms');
  expect(await axeFindings(page)).toEqual([]);
  const shipped = page.getByRole('listitem').filter({ hasText: 'look back on a lesson' });
  await shipped.getByRole('link', { name: 'Begin from it' }).click();
  await settled(page);
  await page.getByLabel('What it is called').fill('How the potting went');
  await page.getByRole('button', { name: 'Garden group' }).click();
  await page.getByRole('button', { name: 'Remove question 3' }).click();
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.getByLabel('Question 4', { exact: true }).fill('How many pots');
  await page.getByLabel('Answered').nth(3).selectOption({ label: 'With a number' });
  await page.getByLabel('At least').fill('0');
  await page.getByLabel('Stands out below').fill('3');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Keep form' }).click();
  await expectToast(page, 'Kept.');
  await expect(page.getByRole('heading', { name: 'How the potting went' })).toBeVisible();
  await expect(page.getByText('0 of 4 students have answered', { exact: false })).toBeVisible();
  const answers = new URL(page.url()).pathname;

  const linnea = await sitDown(browser, app, 'Linnea');
  await linnea.getByRole('link', { name: 'How the potting went' }).click();
  await settled(linnea);
  await linnea.getByRole('button', { name: 'I am stuck' }).click();

  // While she answers, the teacher asks one more.
  await page.goto(`${answers}/edit`);
  await settled(page);
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.getByLabel('Question 5', { exact: true }).fill('What will you do tomorrow?');
  await page.getByRole('button', { name: 'Keep form' }).click();
  await expectToast(page, 'Kept.');

  await linnea.getByLabel('How many pots').fill('−3');
  await linnea.getByRole('button', { name: 'Save my answers' }).click();
  await expect(linnea.getByText('Type a number.')).toBeVisible();
  await linnea.getByLabel('How many pots').fill('-3');
  await linnea.getByRole('button', { name: 'Save my answers' }).click();
  await expect(linnea.getByText('It cannot be less than 0.')).toBeVisible();
  await linnea.getByLabel('How many pots').fill('2');
  await linnea.getByLabel('What will you do next?').fill('Ask Kestrel.');
  expect(await axeFindings(linnea)).toEqual([]);
  await linnea.context().setOffline(true);
  await linnea.getByRole('button', { name: 'Save my answers' }).click();
  await expect(linnea.getByText('No connection.', { exact: false })).toBeVisible();
  await linnea.context().setOffline(false);
  await expect(linnea.getByText('Saved. Thank you.')).toBeVisible({ timeout: 15_000 });
  await expect(linnea.getByLabel('What will you do tomorrow?')).toBeVisible();

  // The teacher's table shows it by itself: with what stands out, and whose name is in it.
  await page.goto(answers);
  const row = page.getByRole('row').filter({ hasText: 'Linnea P.' });
  await expect(row).toContainText('I am stuck (stands out)');
  await expect(row).toContainText('2 (stands out)');
  await expect(row).toContainText('names Kestrel');
  await expect(row).toContainText('not asked then');
  await expect(page.getByRole('row').filter({ hasText: 'Jory W.' })).toContainText('no answer yet');
  await page.getByLabel('Only what stands out').check();
  await expect(page.getByRole('row')).toHaveCount(2);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Only what stands out').uncheck();
  await expect(page.getByRole('row')).toHaveCount(5);

  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()]);
  const lines = readFileSync(await file.path(), 'utf8')
    .trim()
    .split(/\r?\n/);
  expect(lines).toHaveLength(5);
  expect(lines[0]).toContain('How did it go? (1 to 4)');
  expect(lines.find((one) => one.includes('Linnea'))).toMatch(/,I am stuck,1,.*,2,/);
  expect(lines.find((one) => one.includes('Jory'))).toMatch(/^"?Jory W\."?,,,,0,/);

  // To confer: one student after the other, with their goals beside.
  await row.getByRole('link', { name: 'Linnea P.' }).click();
  await expect(page.getByRole('complementary', { name: 'Their goals' }).getByRole('link').first()).toBeVisible();
  await page.keyboard.press(']');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Jory W.');
  await linnea.context().close();
});

test('classmates answer for who presents, by one code and at a desk; looked through, held back, handed on', async ({
  app,
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  await signInAs(app, page);
  await page.goto('/class/feedback');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('link', { name: 'New presentation' }).click();
  await settled(page);
  await page.getByLabel('What is presented').fill('Birdhouses');
  const [answering, presenting] = [
    page.getByRole('group', { name: 'Who answers' }),
    page.getByRole('group', { name: 'Who presents' }),
  ];
  for (const name of ['Kestrel', 'Linnea', 'Jory']) await answering.getByLabel(new RegExp(name)).check();
  for (const name of ['Kestrel', 'Linnea']) await presenting.getByLabel(new RegExp(name)).check();
  await page.getByLabel('Whoever presents reads who said it').check();
  await page.getByRole('button', { name: 'Keep presentation' }).click();
  await expectToast(page, 'Kept.');
  await settled(page);
  await page.getByRole('button', { name: 'Linnea presents earlier' }).click();
  await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText('1. Linnea');

  await page.getByRole('button', { name: 'Show the code' }).click();
  const code = page.getByText(/\/seat\/in\//);
  const address = (await code.textContent()) ?? '';
  const jory = await elsewhere(browser, app, address);
  await expect(jory.getByRole('button')).toHaveCount(3);
  await jory.getByRole('button', { name: 'I am JW' }).click();
  await expect(jory.getByText('You are Jory.', { exact: false })).toBeVisible();
  await settled(jory);
  await jory.getByRole('button', { name: /Linnea/ }).click();
  await jory.getByRole('button', { name: 'Very clear' }).click();
  await jory.getByLabel('What was good?').fill('The hinges.');
  expect(await axeFindings(jory)).toEqual([]);
  await jory.getByRole('button', { name: 'Save my answers' }).click();
  await expect(jory.getByText('Saved for Linnea. Thank you.')).toBeVisible();

  const kestrel = await sitDown(browser, app, 'Kestrel');
  await kestrel.getByRole('link', { name: 'Birdhouses' }).click();
  await settled(kestrel);
  await kestrel.getByRole('button', { name: /Linnea/ }).click();
  await kestrel.getByRole('button', { name: 'Partly clear' }).click();
  await kestrel.getByLabel('What was good?').fill('Nothing, ask Jory.');
  await kestrel.getByRole('button', { name: 'Save my answers' }).click();
  await expect(kestrel.getByText('Saved for Linnea. Thank you.')).toBeVisible();

  // The teacher's page heard of both; Kestrel's names somebody, and is held back.
  await expect(page.getByText('2 of 2 answered')).toBeVisible();
  await expect(page.getByText('Names Jory.', { exact: false })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'ask Jory' })
    .last()
    .getByRole('button', { name: 'Hold back' })
    .click();
  await expectToast(page, 'Held back. It goes on to nobody.');
  // Jory thinks of something better before it is closed.
  await jory.getByRole('button', { name: /Linnea/ }).click();
  await jory.getByLabel('What was good?').fill('The hinges and the roof.');
  await jory.getByRole('button', { name: 'Keep the change' }).click();
  await expect(page.getByText('The hinges and the roof.', { exact: false })).toBeVisible();
  await page.getByRole('main').getByRole('button', { name: 'Close', exact: true }).click();
  await expectToast(page, 'Closed.');
  await page.getByRole('button', { name: 'Hand 1 answer on to Linnea' }).click();
  await expectToast(page, 'Handed on: 1 answer.');
  await jory.reload();
  await expect(jory.getByText('It is closed. Thank you.')).toBeVisible();

  const linnea = await sitDown(browser, app, 'Linnea');
  await linnea.getByRole('link', { name: 'What my classmates said' }).click();
  const said = linnea.getByRole('main');
  await expect(said).toContainText('from Jory');
  await expect(said).toContainText('The hinges and the roof.');
  await expect(said).not.toContainText('ask Jory');
  expect(await axeFindings(linnea)).toEqual([]);
  await page.goto(`/students/${await studentId(app.db, 'Linnea')}/individual-report`);
  const entry = page.getByRole('listitem').filter({ hasText: 'The hinges and the roof.' });
  await expect(entry).toContainText('Classmate');
  await expect(entry).not.toContainText('Jory');
  // The code opens nothing any more.
  await jory.goto(new URL(address).pathname);
  await expect(jory.getByRole('heading', { level: 1 })).toHaveText('This code opens nothing any more.');
  for (const device of [jory, kestrel, linnea]) await device.context().close();
});

/** Rates what stands before one, and says something. */
async function rate(rater: Page, points: number, words: string) {
  for (const criterion of await rater.getByRole('group').all()) {
    await criterion
      .getByRole('radio')
      .nth(points - 1)
      .check();
  }
  await rater.getByLabel('In your own words').fill(words);
  await rater.getByRole('button', { name: /Rate|Change/ }).click();
}

test('a stack: raters spread evenly, one link each, the work in view, agreement, a page of each student', async ({
  app,
  page,
  browser,
}) => {
  test.setTimeout(180_000);
  await signInAs(app, page);
  await page.goto('/class/work-samples');
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('link', { name: 'New stack' }).click();
  await settled(page);
  await page.getByLabel('What is rated').fill('Recipe card');
  const whose = page.getByRole('group', { name: /Whose work/ });
  for (const name of ['Gideon', 'Kestrel', 'Linnea']) await whose.getByLabel(new RegExp(name)).check();
  const staff = page.getByRole('group', { name: /from the staff/ });
  for (const name of ['Hanneke Bruun', 'Pilar Ibarra']) await staff.getByLabel(name).check();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make stack' }).click();
  await expectToast(page, 'Made. Put the work in, then give out the links.');
  await settled(page);
  const gideon = page.getByRole('listitem').filter({ hasText: 'Gideon' }).first();
  await gideon.getByText('Put Gideon A.’s work in').click();
  await gideon.getByLabel('Or its text').fill('Two cups of flour.');
  await gideon.getByRole('button', { name: 'Save work' }).click();
  await expectToast(page, 'Saved.');

  await page.getByRole('button', { name: 'Make links for all' }).click();
  await expect(page.getByRole('link', { name: /\/stack\// })).toHaveCount(2);
  const hrefs = await page
    .getByRole('link', { name: /\/stack\// })
    .evaluateAll((links) => links.map((one) => one.textContent ?? ''));
  const raters = [await elsewhere(browser, app, hrefs[0] ?? ''), await elsewhere(browser, app, hrefs[1] ?? '')];
  for (const [at, rater] of raters.entries()) {
    await expect(rater.getByText('0 of 3 rated')).toBeVisible();
    expect(await axeFindings(rater)).toEqual([]);
    await rater.getByRole('link', { name: /Work sample No\. 1/ }).click();
    for (let n = 1; n <= 3; n++) {
      await expect(rater.getByRole('heading', { level: 1 })).toHaveText(`Work sample No. ${n}`);
      await settled(rater);
      for (const name of ['Gideon', 'Kestrel', 'Linnea']) await expect(rater.getByText(name)).toHaveCount(0);
      await rate(rater, at === 0 ? 3 : n, `Said by rater ${at}.`);
    }
    await expect(rater.getByText('3 of 3 rated')).toBeVisible();
  }
  // The second thinks better of one of them.
  const second = raters[1]!;
  await second.getByRole('link', { name: /Work sample No\. 3/ }).click();
  await settled(second);
  expect(await axeFindings(second)).toEqual([]);
  await rate(second, 4, 'On a second look.');
  await expect(second.getByText('3 of 3 rated')).toBeVisible();

  await page.reload();
  await expect(page.getByRole('listitem').filter({ hasText: 'P. Ibarra' })).toContainText('3 of 3 rated');
  // 3 and 1, 3 and 2, 3 and 4: none the same, two within one level.
  await expect(
    page
      .getByRole('complementary')
      .getByText('0 of 3 pairs the same (0%), 2 within one level', { exact: false })
      .first(),
  ).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('main').getByRole('button', { name: 'Close', exact: true }).click();
  await expectToast(page, 'Closed: nobody rates or corrects any more.');
  await second.reload();
  await expect(second.getByText('It is closed: nothing is rated any more.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Make entries' }).click();
  await expectToast(page, 'Made 3 entries.');
  await page.getByRole('link', { name: 'Pages to hand out' }).click();
  await expect(page.getByRole('article')).toHaveCount(3);
  await expect(page.getByRole('article').filter({ hasText: 'Gideon' })).toContainText('Said by rater 0.');
  expect(await axeFindings(page)).toEqual([]);
  for (const rater of raters) await rater.context().close();
});

test('a round has a form for each of its students', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/rounds/new');
  await settled(page);
  await page.getByLabel('Name', { exact: true }).fill('Bench check');
  for (const name of ['Ansel D.', 'Briar Q.']) {
    await page.getByRole('group', { name }).getByRole('checkbox').first().check();
  }
  await page
    .getByRole('group', { name: /Forms to fill in/ })
    .getByLabel('A skill I saw')
    .check();
  await page.getByRole('button', { name: 'Save the round' }).click();
  await page.getByRole('link', { name: 'Bench check' }).first().click();
  await settled(page);
  await page.getByText('A skill I saw').click();
  await page.getByLabel('What did they do?').fill('Laid out the tools.');
  await page.getByRole('button', { name: 'Save note for Ansel D.' }).click();
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  const notes = await app
    .db('entries')
    .where({ student_id: await studentId(app.db, 'Ansel'), kind: 'note' })
    .pluck('form_id');
  expect(notes).toEqual([await formIdOf(app, 'staff')]);
});
