// What people mark by rules of their own, and what somebody is to do because of it.

import { randomUUID } from 'node:crypto';
import { textOfPdf } from '../examples/pdf-text';
import { withPost } from './beside';
import { axeFindings, expect, expectToast, goalId, settled, signInAs, studentId, test } from './fixtures';

test('a rule is made, tells what it would have done, marks old and new entries, makes one follow-up and one message; a correction undoes the mark', async ({
  app,
  page,
}) => {
  test.setTimeout(120_000);
  const [dahlia, goal] = [await studentId(app.db, 'Dahlia'), await goalId(app.db, 'Dahlia', '3')];
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const old = randomUUID();
  const record = (id: string, trials: string[]) =>
    page.request.post(`${app.url}/students/${dahlia}/sessions`, {
      headers: { origin: app.url },
      data: {
        personId: hanneke,
        session: {
          ...{ on: '2026-11-24', time: '09:00', observerId: hanneke, locationId: null },
          entries: [{ id, goalId: goal, outcome: { data: { trials }, reason: null }, note: '' }],
        },
      },
    });
  await signInAs(app, page);
  expect((await record(old, ['incorrect', 'incorrect', 'independent'])).ok()).toBe(true);

  await page.goto('/setup');
  await page.getByRole('link', { name: /^Rules/ }).click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('listitem').filter({ hasText: 'A low percentage' }).getByRole('link').click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('textbox', { name: 'Name' }).fill('Dahlia needs signs again');
  await page.getByRole('combobox', { name: 'About' }).selectOption('One student');
  await page.getByRole('combobox', { name: 'Student' }).selectOption('Dahlia N.');
  await page.getByRole('textbox', { name: 'Word of the mark' }).fill('Signs again');
  await page.getByRole('checkbox', { name: 'Make a follow-up' }).check();
  await page.getByRole('textbox', { name: 'What is to be done' }).fill('Walk past the signs');
  await page.getByRole('checkbox', { name: 'Send a message' }).check();
  await page.getByRole('combobox', { name: 'To whom' }).selectOption('Whoever recorded it');
  await expect(page.getByRole('main')).toContainText(
    'When an entry of a goal is recorded and the figure is below 50%: mark it “Signs again”, make a follow-up for the case manager, “Walk past the signs”, due in 2 school days and send a message to whoever recorded it.',
  );
  // Before it is saved: how many of how many, and which.
  await expect(page.getByText(/^\d+ of \d+ entries since Oct 27, the last 20 school days:$/)).toBeVisible();
  await expect(page.getByRole('link', { name: 'Dahlia N. · 3 · Reads safety signs' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Save rule' }).click();
  await expectToast(page, 'The rule is saved. It marks what fulfils it from this moment.');

  await withPost(app, async () => {
    const fresh = randomUUID();
    expect((await record(fresh, ['incorrect', 'incorrect'])).ok()).toBe(true);
    await expect
      .poll(async () => Number((await app.db('test_mail_inbox').count().first())?.count), { timeout: 30_000 })
      .toBe(1);
    const mail = (await app.db('test_mail_inbox').first())!;
    expect(mail.subject).toBe('A rule was fulfilled');
    expect(mail.body).toContain('“Dahlia needs signs again” was fulfilled for Dahlia N.');
    const marked = (id: string) => page.locator(`[id="${id}"]`);
    await page.goto(`/students/${dahlia}/individual-report`);
    await expect(marked(old)).toContainText('Signs again');
    await expect(marked(fresh)).toContainText('Signs again');

    const correction = {
      ...{ intent: 'correct', version: 1, on: '2026-11-24', time: '09:00', observerId: hanneke, locationId: null },
      ...{
        outcome: { data: { trials: ['independent', 'independent'] }, reason: null },
        note: '',
        why: 'Looked again.',
      },
    };
    const corrected = await page.request.post(`${app.url}/students/${dahlia}/entries/${fresh}`, {
      ...{ headers: { origin: app.url }, data: correction },
    });
    expect(corrected.ok()).toBe(true);
    await page.reload();
    await expect(marked(fresh)).not.toContainText('Signs again');
    await expect(marked(old)).toContainText('Signs again');
    // On paper and in files as on the page.
    const paper = await page.request.get(`/students/${dahlia}/individual-report/as/pdf`);
    const text = (await textOfPdf(await paper.body())).pages.join(' ');
    expect(text).toContain('Marked: Signs again.');
    const followUps = await app.db('follow_ups').where({ student_id: dahlia });
    expect(followUps.map(({ entry_id, what }) => [entry_id, what])).toEqual([[fresh, 'Walk past the signs']]);
    expect(Number((await app.db('test_mail_inbox').count().first())?.count)).toBe(1);
  });

  // What is to be done: done with a word, and opened again.
  await page.goto('/follow-ups');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const item = page.getByRole('listitem').filter({ hasText: 'Walk past the signs' });
  await expect(item).toContainText('due Nov 30 · for H. Bruun · by the rule “Dahlia needs signs again”');
  await item.getByRole('button', { name: 'Done: Walk past the signs' }).click();
  await item.getByRole('textbox').fill('Twice around the yard.');
  await item.getByRole('button', { name: 'Done' }).click();
  await expectToast(page, 'Done.');
  await expect(item).toHaveCount(0);
  await page.getByRole('link', { name: 'Done' }).click();
  await expect(item).toContainText('Done by H. Bruun, Nov 24: Twice around the yard.');
});

test('a rule that is not complete is refused where it is not, with nothing lost; one that would send many messages is asked about', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/rules/new');
  await settled(page);
  await page.getByRole('button', { name: 'Add condition' }).click();
  await page.getByRole('combobox', { name: 'Condition' }).last().selectOption('Support was … or more');
  await page.getByRole('spinbutton', { name: 'Figure (%)' }).fill('');
  await page.getByRole('button', { name: 'Save rule' }).click();
  await expect(page.getByText('Give it a name.')).toBeVisible();
  await expect(page.getByText('Type a number.')).toBeVisible();
  await expect(page.getByText('Choose a support level.')).toBeVisible();
  await expect(page.getByText('Type the word of the mark.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Everything');
  await page.getByRole('spinbutton', { name: 'Figure (%)' }).fill('90');
  await page.getByRole('button', { name: 'Remove condition 2' }).click();
  await page.getByRole('textbox', { name: 'Word of the mark' }).fill('Not yet');
  await page.getByRole('checkbox', { name: 'Send a message' }).check();
  await page.getByRole('button', { name: 'Save rule' }).click();
  await expect(page.getByText(/it would have sent \d+ messages/)).toBeVisible();
  expect(await app.db('rule_versions').where({ name: 'Everything' })).toEqual([]);
  await page.getByRole('button', { name: 'Yes, save it as it is' }).click();
  await expectToast(page, 'The rule is saved. It marks what fulfils it from this moment.');
  const rule = page.getByRole('listitem').filter({ hasText: 'Everything' }).first();
  await rule.getByRole('button', { name: 'Switch off' }).click();
  await expect(page.getByText('Switched off: 1')).toBeVisible();
});

test('a follow-up by hand stands on Today, in the calendar and, where it is said, in the report; marks and hidden names stay inside', async ({
  app,
  page,
  request,
}) => {
  const briar = await studentId(app.db, 'Briar');
  await signInAs(app, page);
  await page.goto('/');
  const section = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Follow-ups' }) });
  await expect(section).toContainText('Ask his aunt how mornings go');
  await section.getByRole('link', { name: 'Briar Q.' }).click();
  const goal = await goalId(app.db, 'Briar', '1');
  const { id: entry } = (await app
    .db('entries')
    .where({ goal_id: goal, withdrawn: false })
    .orderBy('observed_on', 'desc')
    .first('id'))!;
  await page.goto(`/students/${briar}/entries/${entry}`);
  await page.getByRole('link', { name: 'Make a follow-up' }).click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make follow-up' }).click();
  await expect(page.getByText('Type what is to be done.')).toBeVisible();
  await page.getByRole('textbox', { name: 'What is to be done' }).fill('Bring the ruler home, as Jory does');
  await page.getByRole('checkbox', { name: /Show it in the individual report/ }).check();
  await page.getByRole('button', { name: 'Make follow-up' }).click();
  await expectToast(page, 'The follow-up is there.');
  const calendar = await (await page.request.get('/follow-ups.ics')).text();
  expect(calendar).toContain('SUMMARY:BQ: Bring the ruler home');
  expect(calendar).toContain('DTSTART;VALUE=DATE:20261130');
  expect(calendar).not.toContain('Briar');

  await page.goto(`/students/${briar}/individual-report`);
  await expect(page.locator(`[id="${entry}"]`)).toContainText(
    'Follow-up: Bring the ruler home, as Jory does, due Nov 30.',
  );
  // Of a reader from outside: the follow-up that was said to be shown, and no mark.
  expect(await page.getByText('Low', { exact: true }).count()).toBeGreaterThan(0);
  const link = { id: randomUUID(), readerName: 'Aunt', kind: 'family', endsOn: '2026-12-24' };
  const made = await page.request.post(`/students/${briar}/sharing/links`, {
    ...{ form: link, headers: { origin: app.url }, maxRedirects: 0 },
  });
  const address = /\/shared\/[\w-]+/.exec(await made.text())?.[0] ?? '';
  const outside = await (await request.get(app.url + address)).text();
  expect(outside).toContain('Bring the ruler home, as a classmate does');
  expect(outside).not.toContain('Jory');
  expect(outside).not.toMatch(/>Low</);
  expect(outside).not.toContain('Try the ruler with raised marks');
});
