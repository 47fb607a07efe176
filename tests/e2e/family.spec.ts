// The family: what their page begins with, what they take away, and what they contest.
import { writeFileSync } from 'node:fs';
import JSZip from 'jszip';
import { textOfPdf } from '../examples/pdf-text';
import { axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';

test('a family’s page begins with the goals and with what is new; they take it away, state something, and ask for an amendment', async ({
  app,
  page,
  browser,
}) => {
  test.slow();
  await signInAs(app, page);
  const student = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${student}/sharing/links`);
  await settled(page);
  await page.getByLabel('Who will read').fill('Aunt Ida');
  await page.getByLabel('What kind of reader').selectOption('Family');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const path = new URL(await page.getByLabel('The link', { exact: true }).inputValue()).pathname;
  const { id: linkId } = (await app.db('share_links').where({ reader_name: 'Aunt Ida' }).first('id'))!;

  const reader = await browser.newPage({ baseURL: app.url, viewport: { width: 390, height: 844 } });
  await reader.goto(path);
  await settled(reader);
  const goals = reader.getByRole('region', { name: 'Goals' });
  const pause = goals.getByRole('listitem').filter({ hasText: '2b · Asks for a pause' });
  await expect(pause).toContainText('Ansel will hand over the pause card');
  await expect(pause).toContainText('Now 80%; it began at 40%');
  await expect(pause).toContainText(
    'Met, holding. The goal’s criterion has been reached, and later observations hold it.',
  );
  await expect(pause).toContainText('60 observations by 4 people since the plan began.');
  await expect(pause.getByRole('img')).toHaveAttribute('alt', /52 scores/);
  // Who reads for the first time is told of nothing new.
  await expect(reader.getByRole('heading', { name: /^New since/ })).toHaveCount(0);
  expect(await axeFindings(reader)).toEqual([]);

  // What is new since they read last, a few days ago.
  const before = { student_id: student, link_id: linkId, what: 'report', how: 'opened' as const };
  await app.db('access_log').insert({ ...before, at: new Date('2026-11-20T18:00:00-05:00'), day: '2026-11-20' });
  await reader.reload();
  await settled(reader);
  await expect(reader.getByRole('heading', { name: 'New since you last read, Fri, Nov 20, 2026' })).toBeVisible();
  const news = reader.getByRole('region', { name: 'New' });
  expect(await news.getByRole('listitem').count()).toBeGreaterThan(3);

  // Taken away: the same first page, and a sheet for each goal, of what they are shown.
  const file = async (format: string) => (await reader.request.get(`${path}/as/${format}`)).body();
  const pdf = await file('pdf');
  const { pages } = await textOfPdf(pdf);
  expect(pages[0]).toContain('Now 33%; it began at 38%');
  expect(pages.join(' ')).not.toMatch(/H\. Bruun|Samir/);
  const workbook = await JSZip.loadAsync(await file('xlsx'));
  const sheets = await workbook.file('xl/workbook.xml')?.async('string');
  expect(sheets).toContain('2b Asks for a pause');
  const docx = await JSZip.loadAsync(await file('docx'));
  expect(await docx.file('word/document.xml')?.async('string')).toContain('it began at 38%');
  expect(await app.db('access_log').where({ link_id: linkId, how: 'exported' })).toHaveLength(3);
  if (process.env.KEEP_FILES) writeFileSync(`${process.env.KEEP_FILES}/family.pdf`, pdf);

  // Near the top there is a place to write: a statement stays, a request reaches the case manager.
  await reader.getByRole('button', { name: 'Write to the team' }).click();
  await reader.getByLabel('What it is').selectOption('A statement that stays with it');
  await reader.getByLabel('Your statement').fill('At home he asks without a card.');
  expect(await axeFindings(reader)).toEqual([]);
  await reader.getByRole('button', { name: 'Add the statement' }).click();
  await expect(reader.getByText('Aunt Ida, a statement')).toBeVisible();
  await reader.getByRole('button', { name: 'Write to the team' }).click();
  await reader.getByLabel('What it is').selectOption('A request to amend it');
  await reader.getByRole('button', { name: 'Send the request' }).click();
  await expect(reader.getByText('Write something first.')).toBeVisible();
  await reader.getByLabel('What should be amended, and why').fill('He was at the dentist then.');
  await reader.getByRole('button', { name: 'Send the request' }).click();
  await expect(reader.getByText('Aunt Ida, asks for an amendment')).toBeVisible();

  await page.goto('/follow-ups');
  await settled(page);
  await expect(page.getByText('Answer the family’s request to amend an entry')).toBeVisible();
  await page.goto(`/students/${student}/individual-report`);
  await settled(page);
  await page.getByRole('button', { name: 'Decide on this request' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Save the decision' }).click();
  await expect(dialog.getByText('Choose what was decided.')).toBeVisible();
  await dialog.getByLabel('It is not amended').check();
  await dialog.getByLabel('Why, for the family to read').fill('The note in the log shows him in class.');
  await dialog.getByRole('button', { name: 'Save the decision' }).click();
  await expect(page.getByRole('button', { name: 'Decide on this request' })).toHaveCount(0);
  await page.goto('/follow-ups');
  await settled(page);
  await expect(page.getByText('Answer the family’s request to amend an entry')).toHaveCount(0);
  await reader.reload();
  await settled(reader);
  await expect(reader.getByText(/Not amended\. The family may ask the school for a hearing/)).toBeVisible();
  const again = (await textOfPdf(await file('pdf'))).pages.join(' ');
  expect(again).toContain('Aunt Ida, a statement: At home he asks without a card.');

  // An issued report stays as it is; what is stated of it stands with it, on the page and on paper.
  await page.goto('/reports');
  await settled(page);
  await page.getByRole('link', { name: 'To the draft of Ansel D.' }).click();
  await page.getByRole('button', { name: 'Issue it …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Issue it' }).click();
  await expectToast(page, 'Issued. It is numbered and dated, and does not change any more.');
  await reader.reload();
  await settled(reader);
  await reader.getByRole('link', { name: 'Quarter 1' }).click();
  await settled(reader);
  await reader.getByRole('button', { name: 'Add a statement, or ask for an amendment' }).click();
  await reader.getByLabel('Your statement').fill('He does more at home than this says.');
  await reader.getByRole('button', { name: 'Add the statement' }).click();
  await expect(reader.getByRole('article')).toContainText('He does more at home than this says.');
  expect(await axeFindings(reader)).toEqual([]);
  const issued = await reader.request.get(`${new URL(reader.url()).pathname}/pdf`);
  expect((await textOfPdf(await issued.body())).pages.join(' ')).toContain('He does more at home than this says.');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('Said of this report since it was issued');
});
