// A device that locks itself, and one that several adults use.
import { axeFindings, expect, expectToast, settled, signInAs, studentId, test } from './fixtures';

const PIN = '246813';

test('a device that nobody uses locks itself; what is being recorded stays, and the PIN opens it, without network too', async ({
  app,
  page,
}) => {
  await app.db('schools').update({ lock_minutes: 5 });
  await signInAs(app, page);
  const student = await studentId(app.db, 'Jory');
  await page.goto(`/students/${student}/observe`);
  await settled(page);
  await page.keyboard.press('1');
  await expect(page.getByText('Kept on this device')).toBeVisible();
  const lieThere = () => page.evaluate(() => localStorage.setItem('gm-active', `${Date.now() - 6 * 60_000}`));
  const cover = page.getByRole('dialog', { name: 'Locked' });
  const type = async (secret: string) => {
    await cover.getByLabel('PIN, or password').fill(secret);
    await cover.getByRole('button', { name: 'Open' }).click();
  };
  await lieThere();
  await expect(cover).toBeVisible();
  await expect(page.getByText('H. Bruun’s')).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(cover).toBeVisible();
  // The server shows nothing more of it either.
  const row = () => app.db('sign_in_sessions').orderBy('created_at', 'desc').first();
  await expect.poll(async () => (await row())?.locked_at).not.toBeNull();
  expect((await page.request.get(`/students/${student}`, { maxRedirects: 0 })).headers().location).toMatch(/^\/locked/);
  const refused = await page.request.post(`/students/${student}/sessions`, {
    data: {},
    headers: { origin: app.url },
    maxRedirects: 0,
  });
  expect(refused.status()).toBe(401);
  await type('1357');
  await expect(cover.getByText('This is neither your PIN nor your password.')).toBeVisible();
  await type(PIN);
  await expect(cover).toHaveCount(0);
  expect((await row())?.locked_at).toBeNull();
  await expect(page.getByRole('button', { name: /^Opportunity 1/ })).toBeVisible();

  // In the garden the device tells by itself.
  await page.context().setOffline(true);
  await lieThere();
  await expect(cover).toBeVisible();
  await type('1357');
  await expect(cover.getByText('This is neither your PIN nor your password.')).toBeVisible();
  await type(PIN);
  await expect(cover).toHaveCount(0);
  await page.context().setOffline(false);

  // A page that is loaded after a while asks first, and leads on to where one was going.
  await app.db('sign_in_sessions').update({ locked_at: new Date() });
  await page.goto(`/students/${student}/individual-report`);
  await expect(page.getByRole('heading', { name: 'Locked' })).toBeVisible();
  await expect(page.getByText('Jory')).toHaveCount(0);
  await page.getByLabel('PIN, or password').fill(PIN);
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(page).toHaveURL(`/students/${student}/individual-report`);
});

test('a tablet of the room: nobody is filled in until somebody taps their name and types their PIN', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/setup/devices');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Whose staff it offers').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Open this device' }).click();
  await expect(page.getByRole('heading', { name: 'Who is it?' })).toBeVisible();
  await settled(page);
  // Nobody is signed in: every page leads back here.
  await page.goto('/students');
  await expect(page).toHaveURL('/device');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const begin = async (name: string, pin: string) => {
    await page.getByRole('button', { name: new RegExp(name) }).click();
    await expect(page.getByLabel('PIN')).toBeFocused();
    await page.keyboard.type(pin);
    await page.keyboard.press('Enter');
  };
  await begin('Samir Tadesse', '1111');
  await expect(page.getByText('This is not the PIN of whom you tapped.')).toBeVisible();
  await page.reload();
  await settled(page);
  await begin('Samir Tadesse', PIN);
  await expect(page.getByRole('link', { name: /account of S\. Tadesse/ })).toBeVisible();
  const { id: samir } = (await app.db('people').where({ name: 'Samir Tadesse' }).first('id'))!;
  const theirs = (await app.db('team_members').where({ person_id: samir, until_date: null }).first('student_id'))!;
  await page.goto(`/students/${theirs.student_id}/observe`);
  await settled(page);
  await expect(page.getByText(/S\. Tadesse/).first()).toBeVisible();

  for (const width of [320, 390, 768, 1024, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth), `at ${width}`).toBe(0);
  }
  await page.getByRole('button', { name: 'Hand over' }).click();
  await expect(page).toHaveURL('/device');
  await settled(page);
  await begin('Hanneke Bruun', PIN);
  await expect(page.getByRole('link', { name: /account of H\. Bruun/ })).toBeVisible();
  await page.goto('/setup/devices');
  await settled(page);
  await page.getByRole('button', { name: 'Close' }).first().click();
  await expectToast(page, 'The device is closed: nobody begins there any more.');
  await expect(page.getByRole('button', { name: 'Hand over' })).toHaveCount(0);
});

test('a PIN is set with one’s password, and the school says after how long devices lock themselves', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  await page.goto('/account');
  await settled(page);
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Save the PIN' }) });
  const pin = async (value: string, password: string) => {
    await form.getByLabel('New PIN').fill(value);
    await form.getByLabel('Your password').fill(password);
    await page.getByRole('button', { name: 'Save the PIN' }).click();
  };
  await pin('12', 'x');
  await expect(page.getByText('Type 4 to 8 digits.')).toBeVisible();
  // Whoever sets up the school has a longer one.
  await pin('1379', (await import('~/demo/school')).demoPassword);
  await expect(page.getByText('Type 6 to 8 digits: you set up the school.')).toBeVisible();
  await pin('137946', 'a guess');
  await expect(page.getByText('This is not your password.')).toBeVisible();
  const { demoPassword } = await import('~/demo/school');
  await pin('137946', demoPassword);
  await expectToast(page, 'Your PIN is saved.');
  await page.goto('/school');
  await settled(page);
  await page.getByLabel('A device locks itself after').fill('90');
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expect(page.getByText('At most 60 minutes.')).toBeVisible();
  await page.getByLabel('A device locks itself after').fill('10');
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expect.poll(async () => (await app.db('schools').first('lock_minutes'))?.lock_minutes).toBe(10);
});
