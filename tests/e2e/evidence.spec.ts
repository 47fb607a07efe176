// Pictures beside an entry, ratings by several, the papers of a group, wordings: what goes with a report.
import { writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { textOfPdf } from '../examples/pdf-text';
import { withPost } from './beside';
import { axeFindings, expect, expectToast, newestEntry, settled, signInAs, studentId, test } from './fixtures';

test('a photograph and a PDF stand beside an entry, for readers who are shown pictures', async ({
  app,
  page,
  browser,
}, testInfo) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  const { id: goal } = (await app.db('goals').where({ student_id: student, number: '1' }).first('id'))!;
  const entry = await newestEntry(app.db, goal);
  await page.goto(`/students/${student}/entries/${entry!.id}`);
  await settled(page);
  const photo = await sharp({ create: { width: 900, height: 600, channels: 3, background: 'teal' } })
    .jpeg()
    .toBuffer();
  const add = (name: string, buffer: Buffer) =>
    page.getByLabel('Add a photograph or a PDF').setInputFiles({ name, mimeType: 'image/jpeg', buffer });
  await add('notes.jpg', Buffer.from('not a picture at all'));
  await expect(
    page.getByText('This is no photograph (JPEG, PNG, WebP) and no PDF, whatever its name says.'),
  ).toBeVisible();
  const huge = testInfo.outputPath('huge.jpg');
  await writeFile(huge, Buffer.alloc(50 * 1024 * 1024));
  await page.getByLabel('Add a photograph or a PDF').setInputFiles(huge);
  await expect(page.getByText('This file is larger than 15 MB.')).toBeVisible();
  const sent = await page.request.post(`/students/${student}/evidence/of/${entry!.id}`, {
    multipart: {
      intent: 'add',
      id: crypto.randomUUID(),
      file: { name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.alloc(16 * 1024 * 1024) },
    },
    headers: { origin: app.url },
  });
  expect(sent.status()).toBe(413);
  await add('bird house.jpg', photo);
  const picture = page.getByRole('img', { name: 'bird house.jpg' });
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(320);
  expect(await axeFindings(page)).toEqual([]);
  await page.goto(`/students/${student}/individual-report`);
  await expect(page.getByRole('img', { name: 'bird house.jpg' })).toBeVisible();

  const { id: evidence } = (await app.db('evidence').first('id'))!;
  const token = 'x'.repeat(43);
  const { createHash } = await import('node:crypto');
  const { id: link } = (await app.db('share_links').where({ student_id: student, kind: 'family' }).first('id'))!;
  await app
    .db('share_link_tokens')
    .insert({ token_hash: createHash('sha256').update(token).digest(), link_id: link, made_at: new Date() });
  const reader = await browser.newPage({ baseURL: app.url });
  expect((await reader.request.get(`/shared/${token}/evidence/${evidence}`)).status()).toBe(404);
  await app
    .db('visibility_rules')
    .where({ student_id: student, kind: 'family' })
    .update({ fields: ['numbers', 'pictures'] });
  await reader.goto(`/shared/${token}`);
  await expect(reader.getByRole('img', { name: 'bird house.jpg' })).toBeVisible();
  const full = await reader.request.get(`/shared/${token}/evidence/${evidence}`);
  expect(full.headers()).toMatchObject({ 'content-type': 'image/jpeg', 'x-content-type-options': 'nosniff' });
  await reader.close();

  await page.goto(`/students/${student}/entries/${entry!.id}`);
  await page.getByRole('button', { name: 'Remove bird house.jpg' }).click();
  await expect(page.getByRole('img', { name: 'bird house.jpg' })).toHaveCount(0);
  expect((await page.request.get(`/students/${student}/evidence/${evidence}`)).status()).toBe(404);
});

test('a photograph is taken while observing, or put beside an entry later, without network: both land once', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const student = await studentId(app.db, 'Jory');
  const buffer = await sharp({ create: { width: 2400, height: 1200, channels: 3, background: 'teal' } })
    .jpeg()
    .toBuffer();
  const file = { name: 'seedling.jpg', mimeType: 'image/jpeg', buffer };
  const photographs = () => app.db('evidence').join('entries', 'entries.id', 'entry_id').where('added_by', hanneke!.id);
  const hanneke = await app.db('people').where({ name: 'Hanneke Bruun' }).first('id');
  await page.goto(`/students/${student}/observe`);
  await settled(page);
  const first = page.getByRole('region').filter({ has: page.getByRole('heading', { level: 2 }) });
  await first
    .getByLabel(/^Photograph of /)
    .first()
    .setInputFiles(file);
  await expect(page.getByRole('img', { name: 'Photograph 1' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('There is a note or a photograph at this goal but nothing is marked.')).toBeVisible();
  await expect(page.getByText('Kept on this device')).toBeVisible();
  // What is taken is there again when the page is opened anew.
  await page.reload();
  await settled(page);
  await expect(page.getByRole('img', { name: 'Photograph 1' })).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.keyboard.press('1');
  // What opens the list is loaded a moment after the page.
  await page.waitForTimeout(3500);
  await page.context().setOffline(true);
  await page.getByRole('button', { name: /^Save( ↵)?$/ }).click();
  await page.getByRole('button', { name: '1 waiting to be sent' }).click();
  await expect(page.getByRole('dialog').getByText('1 photograph')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.context().setOffline(false);
  await expectToast(page, 'Saved for Jory: 1 goal.');
  const [taken] = await photographs().select('entry_id', 'width', 'height', 'goal_id');
  expect(taken).toMatchObject({ width: 1600, height: 800, goal_id: expect.any(String) });

  await page.goto(`/students/${student}/entries/${taken!.entry_id}`);
  await settled(page);
  await expect(page.getByRole('img', { name: 'photograph.jpg' })).toBeVisible();
  await page.context().setOffline(true);
  await page.getByLabel('Add a photograph or a PDF').setInputFiles({ ...file, name: 'later.jpg' });
  await expect(page.getByText('The photograph is kept on this device, and sent by itself.')).toBeVisible();
  await page.context().setOffline(false);
  await expect
    .poll(async () => (await photographs().select('evidence.name')).map(({ name }) => name).toSorted())
    .toEqual(['later.jpg', 'photograph.jpg']);
});

test('a piece of work is rated by staff and by a peer’s link, stands side by side, and becomes an entry', async ({
  app,
  page,
  browser,
}) => {
  await signInAs(app, page);
  const goal = await app
    .db('goals as g')
    .join('goal_measures as m', 'm.goal_id', 'g.id')
    .whereRaw(`m.measure ->> 'kind' = 'rubric'`)
    .first('g.id', 'g.student_id');
  await page.goto(`/students/${goal.student_id}/goals/${goal.id}`);
  await page.getByRole('link', { name: 'rated by several' }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('Say what is rated.')).toBeVisible();
  await page.getByLabel('What is being rated').fill('The garden log');
  await page.getByRole('button', { name: 'Begin' }).click();
  const piece = page.getByRole('region', { name: 'The garden log', exact: true });
  await piece.getByText('Rate it myself').click();
  const groups = await piece.locator('fieldset').all();
  await piece.getByRole('button', { name: 'Rate it', exact: true }).click();
  await expect(piece.getByText('Rate at least one criterion.')).toBeVisible();
  for (const group of groups.slice(0, 2)) await group.getByRole('radio').last().check();
  await piece.getByRole('button', { name: 'Rate it', exact: true }).click();
  await expect(piece.getByRole('columnheader', { name: 'H. Bruun' })).toBeVisible();

  await piece.getByText('Ask a peer or the student').click();
  await piece.getByLabel('Rater’s name (only people who manage sharing see it)').fill('Briar');
  await piece.getByRole('button', { name: 'Make the link' }).click();
  const link = new URL(await piece.getByLabel('The rater’s link').inputValue()).pathname;
  const peer = await browser.newPage({ baseURL: app.url });
  await peer.goto(link);
  await settled(peer);
  expect(await axeFindings(peer)).toEqual([]);
  expect(await peer.getByRole('main').textContent()).not.toMatch(/Bruun|Goal/);
  await peer.locator('fieldset').first().getByRole('radio').first().check();
  await peer.getByLabel('In your own words').fill('I like the drawing.');
  await peer.getByRole('button', { name: 'Rate it' }).click();
  await expect(peer.getByText('Thank you. Your rating is in')).toBeVisible();
  expect((await peer.request.get(link)).status()).toBe(404);
  await peer.close();

  await page.reload();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await expect(piece.getByRole('columnheader', { name: 'Briar' })).toBeVisible();
  await expect(piece.getByText('I like the drawing.')).toBeVisible();
  await expect(piece.getByRole('row').nth(1)).toContainText(/from \d to \d/);
  await piece.getByRole('button', { name: /^Save as an entry/ }).click();
  await expectToast(page, 'The ratings are saved as an entry of the goal.');
  await piece.getByRole('link', { name: 'its entry' }).click();
  await expect(page.getByRole('main')).toContainText('The garden log');
  await expect(page.getByRole('main')).not.toContainText('Briar');
});

test('the papers of a group are made in the background; messages are worded once, and come back when the mail server will not', async ({
  app,
  page,
}) => {
  test.slow();
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto('/reports');
  await settled(page);
  await expect(page.getByText('Issued: 0 of 12 reports.')).toBeVisible();
  await page.getByRole('link', { name: 'Choose what to make' }).click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('Choose at least one student.')).toBeVisible();
  await page.getByRole('button', { name: 'Workshop group' }).click();
  await page.getByLabel('Length').selectOption('In brief, one page each');
  await expect(page.getByText('4 students: 4 pages.')).toBeVisible();
  await page.getByLabel('From').fill('2026-11-20');
  await page.getByLabel('To', { exact: true }).fill('2026-11-01');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('The last day cannot lie before the first.')).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Ansel D.' })).toBeChecked();
  await page.getByLabel('From').fill('');
  await page.getByLabel('To', { exact: true }).fill('');
  await page.getByLabel('Length').selectOption('Full');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('0 of 4 made. You may leave this page.')).toBeVisible();

  await page.goto('/messages/templates?kind=byHand');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Subject').fill('About {student}');
  await expect(page.getByText('would put this child’s data into the subject line')).toBeVisible();
  await page.getByLabel('Subject').fill('News from the workshop');
  await page.getByLabel('Body').fill('Dear {reader}, {percentage}\n{link}');
  await expect(page.getByText('{percentage} would be empty here.')).toBeVisible();
  await page.getByLabel('Body').fill('Dear {reader},\nlook here: {link}\n{stop}');
  await page.getByRole('button', { name: 'Save template' }).click();
  await expectToast(page, 'Saved. New messages use this template.');

  await page.goto('/messages/test-mail');
  await settled(page);
  await page.getByLabel('Addresses with this in them').fill('@bounce.example');
  await page.getByLabel('Its words').fill('No such mailbox here');
  await page.getByRole('button', { name: 'Add the rule' }).click();
  await expect(page.getByText('@bounce.example')).toBeVisible();
  await app.db('share_links').where({ student_id: student, kind: 'family' }).update({ email: 'ida@bounce.example' });
  await page.goto(`/students/${student}/messages/new`);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await expect(page.getByLabel('Subject')).toHaveValue('News from the workshop');
  await page.getByRole('button', { name: 'Send message' }).click();
  await expectToast(page, 'The message will be sent.');

  await withPost(app, async () => {
    await page.goto('/messages');
    await settled(page);
    const line = page.getByRole('listitem').filter({ hasText: 'ida@bounce.example' });
    await expect(line).toContainText('Bounced');
    await expect(line).toContainText('No such mailbox here');
    await line.getByRole('button', { name: /^Send again/ }).click();
    await page.getByLabel('To this address').fill('ida@');
    await page.getByRole('button', { name: 'Send it again' }).click();
    await expect(page.getByText('This does not look like an email address.')).toBeVisible();
    await page.getByLabel('To this address').fill('ida@home.example');
    await page.getByRole('button', { name: 'Send it again' }).click();
    await expect(page.getByRole('listitem').filter({ hasText: 'ida@home.example' })).toContainText('Sent');

    await page.goto('/reports');
    await settled(page);
    const file = page.getByRole('link', { name: /^PDF, 4 students/ });
    await expect(file).toBeVisible();
    const { pages, title } = await textOfPdf(
      await (await page.request.get((await file.getAttribute('href')) ?? '')).body(),
    );
    expect(title).toBe('Workshop group');
    // Each begins on the front of a sheet: a back may be blank.
    const written = pages.filter((text) => text.trim() !== '');
    const whose = written.map((text) =>
      ['Ansel D.', 'Briar Q.', 'Casimir H.', 'Dahlia N.'].filter((name) => text.includes(name)),
    );
    for (const names of whose) expect(names).toHaveLength(1);
    expect([...new Set(whose.flat())]).toEqual(['Ansel D.', 'Casimir H.', 'Dahlia N.', 'Briar Q.']);
  });
});
