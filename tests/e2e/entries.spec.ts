import { rewriting } from '../database/rewriting';
import {
  axeFindings,
  expect,
  expectToast,
  goalId,
  newestEntry,
  type Staff,
  settled,
  signInAs,
  studentId,
  test,
} from './fixtures';

test('a correction replaces the entry in every view, keeps its history, and asks why', async ({ app, page }) => {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Dahlia'), await goalId(app.db, 'Dahlia', '2')];
  const { id } = (await newestEntry(app.db, goal))!;
  const lines = await app.db('entries').where({ student_id: student, withdrawn: false }).count().first();
  await page.goto(`/students/${student}/entries/${id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  const form = page.getByRole('region', { name: 'Correct this entry' });
  while (await form.getByRole('button', { name: /Take back/ }).isVisible())
    await form.getByRole('button', { name: /Take back/ }).click();
  for (let i = 0; i < 4; i++) await form.getByRole('button', { name: 'Independent', exact: true }).click();
  await form.getByLabel('Note').fill('All four, alone.');
  await form.getByRole('button', { name: 'Save the correction' }).click();
  await expect(form.getByRole('alert')).toHaveText('Say why, in a few words.');
  await form.getByLabel('Why is it corrected?').fill('Two marks were missing.');
  await form.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'Corrected. What it said before is kept.');
  await expect(page.getByRole('main')).toContainText('4 of 4 times with a gesture or less help (100%). Alone: 4.');
  const margin = page.getByRole('complementary', { name: 'What it said before' });
  await expect(margin.getByRole('listitem')).toHaveCount(2);
  await expect(margin.getByRole('listitem').first()).toContainText('“Two marks were missing.”');

  const sentence = '4 of 4 times with a gesture or less help (100%). Alone: 4.';
  for (const view of [`/students/${student}/individual-report?goal=${goal}`, `/students/${student}/goals/${goal}`]) {
    await page.goto(view);
    const entry = page.locator('main li, main tr').filter({ has: page.getByText('All four, alone.') });
    await expect(entry).toHaveCount(1);
    await expect(entry).toContainText(sentence);
    await expect(entry).toContainText('corrected');
  }
  expect(await app.db('entries').where({ student_id: student, withdrawn: false }).count().first()).toEqual(lines);

  // With the names the reason goes out of sight: it may tell of anybody.
  await page.goto(`/students/${student}/entries/${id}`);
  await page.getByRole('button', { name: 'Discreet off' }).click();
  await expect(margin).not.toContainText('Two marks were missing.');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Discreet on' })).toBeVisible();
  await expect(margin.getByRole('listitem')).toHaveCount(2);
  expect(await page.content()).not.toContain('Two marks were missing.');
});

test('withdrawing takes an entry out of every view and figure; it stays readable', async ({ app, page }) => {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Dahlia'), await goalId(app.db, 'Dahlia', '1')];
  const { id } = (await newestEntry(app.db, goal))!;
  await rewriting(app.db, (trx) => trx('entries').where({ id }).update({ note: 'A note that marks it.' }));
  await page.goto(`/students/${student}/entries/${id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Withdraw entry' }).click();
  const form = page.getByRole('region', { name: 'Withdraw this entry' });
  await form.getByRole('button', { name: 'Withdraw entry' }).click();
  await expect(form.getByRole('alert')).toHaveText('Say why, in a few words.');
  await form.getByLabel('Why is it withdrawn?').fill('Another student’s session.');
  await form.getByRole('button', { name: 'Withdraw entry' }).click();
  await expectToast(page, 'Withdrawn. It counts nowhere any more.');
  await expect(page.getByText('Withdrawn by H. Bruun').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Correct entry' })).toHaveCount(0);
  for (const view of ['', '/individual-report', `/goals/${goal}`]) {
    await page.goto(`/students/${student}${view}`);
    await expect(page.getByRole('main')).toBeVisible();
    await expect(page.getByText('A note that marks it.')).toHaveCount(0);
  }
  await page.goto(`/students/${student}/entries/${id}`);
  await expect(page.getByText('A note that marks it.').first()).toBeVisible();
});

test('the second of two people is shown what the first changed, keeps what they typed, and may go on', async ({
  app,
  page,
  browser,
}) => {
  const [student, goal] = [await studentId(app.db, 'Casimir'), await goalId(app.db, 'Casimir', '1')];
  const { id } = (await newestEntry(app.db, goal))!;
  const { id: lotte } = (await app.db('people').where({ name: 'Lotte Varga' }).first('id'))!;
  await rewriting(app.db, (trx) => trx('entries').where({ id }).update({ observer_id: lotte }));
  const other = await browser.newPage({ baseURL: app.url });
  await signInAs(app, page);
  await signInAs(app, other, 'Lotte Varga');
  const begin = async (who: typeof page, note: string) => {
    await who.goto(`/students/${student}/entries/${id}`);
    await settled(who);
    await who.getByRole('button', { name: 'Correct entry' }).click();
    await who.getByLabel('Note').fill(note);
    await who.getByLabel('Why is it corrected?').fill(`So that it says ${note}`);
  };
  await begin(page, 'the first');
  await begin(other, 'the second');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'Corrected. What it said before is kept.');
  await other.getByRole('button', { name: 'Save the correction' }).click();
  const alert = other.getByRole('alert');
  await expect(alert).toContainText(
    'H. Bruun, Nov 24 15:30 changed this entry in the meantime: “So that it says the first”',
  );
  await expect(alert).toContainText('Yours was not saved and is still here.');
  await expect(other.getByLabel('Note')).toHaveValue('the second');
  await other.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(other, 'Corrected. What it said before is kept.');
  expect(await app.db('entries').where({ id }).first('note', 'version')).toEqual({
    note: 'the second',
    version: 3,
  });
  expect(await app.db('entry_revisions').where({ entry_id: id }).count().first()).toEqual({ count: '2' });
  await other.close();
});

test('whoever may not change an entry is not offered to', async ({ app, page }) => {
  const [student, goal] = [await studentId(app.db, 'Casimir'), await goalId(app.db, 'Casimir', '1')];
  const { id } = (await newestEntry(app.db, goal))!;
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  await rewriting(app.db, (trx) => trx('entries').where({ id }).update({ observer_id: hanneke, recorded_by: hanneke }));
  await signInAs(app, page, 'Noor Haddad');
  await page.goto(`/students/${student}/entries/${id}`);
  await expect(page.getByRole('heading', { name: 'History' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Correct|Withdraw/ })).toHaveCount(0);
});

test('with the database gone a correction waits on the device, and is saved by itself once', async ({ app, page }) => {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Casimir'), await goalId(app.db, 'Casimir', '2')];
  const { id } = (await newestEntry(app.db, goal))!;
  await page.goto(`/students/${student}/entries/${id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct entry' }).click();
  await page.getByLabel('Note').fill('Kept through it all.');
  await page.getByLabel('Why is it corrected?').fill('A word was missing.');
  app.wire.cut();
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expectToast(page, 'No connection: the correction waits on this device, and is sent by itself.');
  await page.getByRole('button', { name: '1 waiting to be sent' }).click();
  await expect(page.getByRole('dialog')).toContainText('Why: A word was missing.');
  await page.keyboard.press('Escape');
  app.wire.mend();
  await expectToast(page, 'Corrected. What it said before is kept.');
  expect(await app.db('entries').where({ id }).first('note', 'version')).toEqual({
    note: 'Kept through it all.',
    version: 2,
  });
});

test('a change that waited finds its record changed meanwhile: it is told, and nothing is overwritten', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const [student, goal] = [await studentId(app.db, 'Casimir'), await goalId(app.db, 'Casimir', '2')];
  const { id } = (await newestEntry(app.db, goal))!;
  await page.goto(`/students/${student}/entries/${id}`);
  await settled(page);
  await page.getByRole('button', { name: 'Withdraw entry' }).click();
  await page.getByLabel('Why is it withdrawn?').fill('Counted twice.');
  app.wire.cut();
  await page.getByRole('region').getByRole('button', { name: 'Withdraw entry' }).click();
  await expectToast(page, 'No connection: the withdrawal waits on this device, and is sent by itself.');
  const { id: lotte } = (await app.db('people').where({ name: 'Lotte Varga' }).first('id'))!;
  const changed = { changed_by: lotte, changed_at: new Date(), change_reason: 'Seen otherwise.' };
  await rewriting(app.db, (trx) =>
    trx('entries')
      .where({ id })
      .update({ version: 2, note: 'By somebody else.', ...changed }),
  );
  app.wire.mend();
  await page.getByRole('button', { name: '1 waiting to be sent' }).click();
  const dialog = page.getByRole('dialog', { name: 'Waiting to be sent' });
  await expect(dialog.getByRole('alert')).toContainText('Nothing was overwritten', { timeout: 30_000 });
  await dialog.getByRole('link', { name: 'Open the record' }).click();
  await expect(page).toHaveURL(new RegExp(id));
  expect(await app.db('entries').where({ id }).first('note', 'withdrawn')).toEqual({
    note: 'By somebody else.',
    withdrawn: false,
  });
});

test('two observers of one session: paired at entry, or later; how far they agree stands at the entry and the goal', async ({
  app,
  page,
}) => {
  const [student, goal] = [await studentId(app.db, 'Ansel'), await goalId(app.db, 'Ansel', '1')];
  const observe = async (name: Staff, keys: string[]) => {
    await signInAs(app, page, name);
    await page.goto(`/students/${student}/observe?goal=${goal}`);
    await settled(page);
    if (name === 'Lotte Varga') {
      await page.getByRole('button', { name: 'change', exact: true }).click();
      await page.getByLabel('Second observer beside').selectOption('H. Bruun');
      await page.getByRole('heading', { name: 'Observing' }).click();
    }
    for (const key of keys) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
  };
  await observe('Hanneke Bruun', ['1', '1', '2', '5']);
  await expectToast(page, 'Saved for Ansel: 1 goal.');
  await observe('Lotte Varga', ['1', '1', '2', '1']);
  await expectToast(page, 'Saved for Ansel: 1 goal, paired with the other observer’s.');
  await page.getByRole('link', { name: 'See it' }).click();
  // Three of four chances noted alike.
  await expect(page.getByText('They agree to 75%')).toContainText('trial by trial, 4 of them');
  await expect(page.getByText('The other entry counts')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.goto(`/students/${student}/goals/${goal}`);
  await expect(page.getByText('they agree to 75% in the mean')).toBeVisible();
  await expect(page.getByRole('row').filter({ hasText: 'second observer' })).toHaveCount(1);

  await page.goBack();
  await settled(page);
  await page.getByRole('button', { name: 'They were not of one session' }).click();
  await page.getByRole('button', { name: /^Of the same session: 15:30 · H. Bruun/ }).click();
  await expect(page.getByText('They agree to 75%')).toBeVisible();
});
