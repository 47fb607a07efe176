// What an administrator does for the whole school: a new year, and what stands open.
import { axeFindings, expect, expectToast, settled, signInAs, test } from './fixtures';

test('a new school year is seen before it is done', async ({ app, page }) => {
  await signInAs(app, page);
  await page.goto('/setup');
  await page.getByRole('link', { name: /A new school year/ }).click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await expect(page.getByLabel('After Grade 4')).toHaveValue('Grade 5');
  await page.getByLabel('After Grade 4').fill('');
  await page.getByRole('button', { name: 'Look at what it will do' }).click();
  await expect(page.getByText('Type the next grade, or say that they leave.')).toBeVisible();
  await page.getByLabel('After Grade 4').fill('Grade 5');
  await page.getByLabel('Students of Workshop group').selectOption({ label: 'go on to Kitchen group' });
  await page.getByLabel('Last day on teams, but for case managers').fill('2027-06-11');
  await page.getByRole('button', { name: 'Add a period' }).click();
  await page.getByLabel('Called').fill('Semester 1');
  await page.getByLabel('Ends on').fill('2027-01-15');
  await page.getByRole('button', { name: 'Look at what it will do' }).click();
  const will = page.getByRole('region', { name: 'What it will do' });
  await expect(will).toContainText('of Grade 4: Grade 5.');
  await expect(will).toContainText('from Workshop group to Kitchen group.');
  await expect(will).toContainText('get the reporting period Semester 1');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const ofGrade4 = () => app.db('students').where({ grade: 'Grade 4', archived_at: null });
  const before = (await ofGrade4()).length;
  expect(before).toBeGreaterThan(0);
  await will.getByRole('button', { name: 'Do all of this' }).click();
  await expectToast(page, 'The new year has begun.');
  expect((await app.db('reporting_periods').where({ label: 'Semester 1' })).length).toBeGreaterThan(1);
  const groups = await app.db('class_groups').whereIn('name', ['Workshop group', 'Kitchen group']).select('id', 'name');
  const left = groups.find(({ name }) => name === 'Workshop group')?.id ?? '';
  expect(
    await app
      .db('student_groups as m')
      .join('students as s', 's.id', 'm.student_id')
      .where({
        ...{ 'm.group_id': left, 's.archived_at': null },
      }),
  ).toEqual([]);

  const day = ['BEGIN:VEVENT', 'UID:1', 'SUMMARY:Snow day', 'DTSTART;VALUE=DATE:20270208', 'END:VEVENT'];
  const ics = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', ...day, 'END:VCALENDAR'].join('\r\n');
  const file = (text: string) => ({ name: 'days.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });
  await page.getByLabel('Calendar file').setInputFiles(file('x'));
  await page.getByRole('button', { name: 'Look through it' }).click();
  await expect(page.getByText('This is no calendar (ICS), or it is damaged.')).toBeVisible();
  await page.getByLabel('Calendar file').setInputFiles(file(ics));
  await page.getByRole('button', { name: 'Look through it' }).click();
  await expect(page.getByLabel('Snow day Mon, Feb 8, 2027')).toBeChecked();
  await page.getByRole('button', { name: 'Add these closures' }).click();
  await expectToast(page, '1 closure added to the school’s calendar.');
  expect(await app.db('closures').where({ label: 'Snow day' })).toHaveLength(1);
});
