// What an administrator does for the whole school: a new year, and what stands open.
import { destroyDue } from '~/server/student-record/destroy';
import { axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';

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

test('a record is destroyed by two administrators, once nobody asks to see it', async ({ app, page, browser }) => {
  const student = await studentId(app.db, 'Ansel');
  await signInAs(app, page);
  // The family asks to see it.
  await page.goto(`/students/${student}/sharing/record`);
  await settled(page);
  await page.getByLabel('Who asks').fill('Ansel’s father');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expectToast(page, 'It is noted.');
  const asked = page.getByRole('region', { name: 'Asked to see it' });
  // Of November 24, 45 days on.
  await expect(asked).toContainText('to be shown by Fri, Jan 8, 2027');
  await page.goto('/destructions');
  await expect(page.getByText('Nobody is archived.')).toBeVisible();
  await app.db('students').where({ id: student }).update({ archived_at: new Date() });
  await page.reload();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Student who has left').selectOption(student);
  // Their record is of yesterday: that is said, and the name is typed.
  await expect(page.getByText(/Is this the right student\?/)).toBeVisible();
  await page.getByLabel('Why').fill('Seven years have gone.');
  await page.getByLabel('How', { exact: true }).fill('By letter.');
  await page.getByLabel('Type the name to confirm: Ansel Dorsey').fill('Ansel Dorsey');
  await page.getByRole('button', { name: 'Ask for it to be destroyed' }).click();
  await expect(page.getByText(/Somebody has asked to see this record/)).toBeVisible();
  const { id: samir } = (await app.db('people').where({ name: 'Samir Tadesse' }).first('id'))!;
  await app.db('record_requests').update({ answered_at: new Date(), answered_by: samir });
  await page.getByRole('button', { name: 'Ask for it to be destroyed' }).click();
  await expectToast(page, 'It is asked for.');
  await expect(page.getByRole('main')).toContainText('or on Tue, Dec 1, 2026');
  await expect(page.getByRole('button', { name: 'Confirm' })).toHaveCount(0);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);

  await app.db('school_staff').where({ person_id: samir }).update({ is_admin: true });
  const other = await browser.newPage({ baseURL: app.url });
  await signInAs(app, other, 'Samir Tadesse');
  await other.goto('/destructions');
  await other.getByRole('button', { name: 'Confirm' }).click();
  await other.getByRole('dialog').getByRole('button', { name: 'Keep it' }).click();
  await other.getByRole('button', { name: 'Confirm' }).click();
  await other.getByRole('dialog').getByLabel('Type the name to confirm: Ansel Dorsey').fill('ansel dorsey');
  await other.getByRole('dialog').getByRole('button', { name: 'Destroy it' }).click();
  await expectToast(other, 'It is confirmed.');
  await expect(other.getByRole('main')).toContainText('Confirmed by Samir Tadesse.');
  expect(await destroyDue(app.db, new Date(app.startedAt))).toBe(1);
  await other.reload();
  await expect(other.getByRole('main')).toContainText('Ansel Dorsey Grade 4, 2026');
  await expect(other.getByRole('main')).toContainText('asked for by Hanneke Bruun, confirmed by Samir Tadesse');
  await other.close();
  await page.goto(`/students/${student}`);
  await expect(page.getByRole('heading', { name: /not here|no such|nothing/i })).toBeVisible();
});
