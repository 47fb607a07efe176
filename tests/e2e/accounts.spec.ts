// Accounts from the first link to the last sign-in: asked to join, a code beside the password, forgotten, handed on, let go.
import type { Browser, Page } from '@playwright/test';
import { TOTP } from 'otpauth';
import { type App, axeFindings, expect, expectToast, settled, signInAs, test } from './fixtures';

const PASSWORD = 'four odd kettles sing';
const EMAIL = 'odile@home.example';

// What a server remembers of wrong tries is this test’s alone.
test.use({ ownServer: true });

async function askToJoin(page: Page): Promise<string> {
  await page.goto('/setup');
  await page.getByRole('link', { name: /^People/ }).click();
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const ask = page.getByRole('region', { name: 'Ask somebody to join' });
  await ask.getByRole('button', { name: 'Ask them' }).click();
  await expect(ask.getByText('Say who it is.')).toBeVisible();
  await ask.getByLabel('Name').fill('Odile Marchetti');
  await ask.getByLabel('Email').fill(EMAIL);
  await ask.getByLabel('As an administrator').check();
  await ask.getByRole('button', { name: 'Ask them' }).click();
  await expect(page.getByRole('heading', { name: 'Odile Marchetti is asked to join.' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Asked, and not here yet' })).toContainText(EMAIL);
  return new URL(await page.getByLabel('The link to pass on').inputValue()).pathname;
}

async function join(browser: Browser, app: App, link: string): Promise<Page> {
  const page = await browser.newPage({ baseURL: app.url });
  await page.goto(link);
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  const choose = async (password: string) => {
    await page.getByLabel('A password, of 12 characters or more').fill(password);
    await page.getByLabel('Once more').fill(password);
    await page.getByRole('button', { name: 'Make my account' }).click();
  };
  await choose('qwertyuiop12');
  await expect(page.getByText('This is guessed soon.')).toBeVisible();
  await page.getByLabel('What you do, in a few words').fill('Head of school');
  await choose(PASSWORD);
  await expect(page).toHaveURL(`${app.url}/`);
  return page;
}

const signIn = async (page: Page, password = PASSWORD) => {
  await page.goto('/sign-in');
  await settled(page);
  await page.getByLabel('Email address').fill(EMAIL);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
};

test('asked to join, with a code beside the password, helped when it is forgotten, and let go', async ({
  app,
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  await signInAs(app, page);
  const link = await askToJoin(page);
  const odile = await join(browser, app, link);
  expect((await odile.request.get(link)).status()).toBe(404);
  // She administers the school, and sees nothing of any student.
  await odile.goto('/school/people');
  await expect(odile.getByRole('heading', { level: 2, name: /Odile Marchetti · you · administrator/ })).toBeVisible();
  await odile.goto('/students');
  await expect(odile.getByRole('main')).not.toContainText('Ansel');

  // The school asks for a code of whoever administers: nothing else is open to her until there is one.
  await page.goto('/school');
  await settled(page);
  await page.getByLabel('Whoever shares reports or administers types a code beside the password').check();
  await page.getByRole('button', { name: 'Save the school' }).click();
  await expect.poll(async () => (await app.db('schools').first('asks_second_factor'))?.asks_second_factor).toBe(true);
  await odile.goto('/school/people');
  await expect(odile).toHaveURL(/\/account\/second-factor$/);
  await settled(odile);
  await expect(odile.getByText('Your school asks for this')).toBeVisible();
  expect(await axeFindings(odile)).toEqual([]);
  const secret = (await odile.locator('p.font-mono').textContent())!.replaceAll(' ', '');
  // The server's own clock begins a little after its process: by less than the half minute that a clock may be off.
  const shown = () =>
    new TOTP({ secret }).generate({
      timestamp: new Date('2026-11-24T15:30:00-05:00').getTime() + (Date.now() - app.startedAt),
    });
  await odile.getByLabel('Code', { exact: true }).fill('000000');
  await odile.getByRole('button', { name: 'Turn it on' }).click();
  await expect(odile.getByText('This is not the code')).toBeVisible();
  await odile.getByLabel('Code', { exact: true }).fill(shown());
  await odile.getByRole('button', { name: 'Turn it on' }).click();
  await expect(odile.getByRole('heading', { name: 'It is on from now on' })).toBeVisible();
  const codes = await odile.locator('ul.font-mono li').allTextContents();
  expect(codes).toHaveLength(8);
  await odile.getByRole('link', { name: 'To your account' }).click();
  await expect(odile.getByText('It is on. 8 recovery codes are left.')).toBeVisible();

  // From now on the password alone opens nothing; the next code of the authenticator does, or one of the eight.
  await settled(odile);
  await odile.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(odile).toHaveURL(/\/sign-in/);
  await signIn(odile);
  await expect(odile.getByRole('heading', { name: 'And your code' })).toBeVisible();
  expect(await axeFindings(odile)).toEqual([]);
  await odile.goto('/students');
  await expect(odile).toHaveURL(/\/sign-in/);
  await signIn(odile);
  await odile.getByLabel('Code', { exact: true }).fill('123456');
  await odile.getByRole('button', { name: 'Go on' }).click();
  await expect(odile.getByText('This code is not right')).toBeVisible();
  // The next code is due within half a minute; that none is taken twice has a test of its own.
  await app.db('second_factors').update({ last_step: null });
  await odile.getByLabel('Code', { exact: true }).fill(shown());
  await odile.getByRole('button', { name: 'Go on' }).click();
  await expect(odile).toHaveURL(/\/students$/);

  // Forgotten: an administrator’s code, since no mail leaves; the code beside the password is asked for all the same.
  await page.goto('/students');
  await expect(page).toHaveURL(/\/account\/second-factor$/);
  // It is asked of Hanneke too, until the school asks no more.
  await app.db('schools').update({ asks_second_factor: false });
  await page.goto('/school/people');
  await settled(page);
  const hers = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: /^Odile Marchetti/ }) });
  await hers.locator('summary').click();
  await hers.getByRole('button', { name: 'Let them choose' }).click();
  const code = await page.getByLabel('The code to pass on').inputValue();
  const forgot = await browser.newPage({ baseURL: app.url });
  await forgot.goto('/sign-in');
  await forgot.getByRole('link', { name: 'Forgotten your password?' }).click();
  await settled(forgot);
  expect(await axeFindings(forgot)).toEqual([]);
  await forgot.getByLabel('The code that an administrator gave you').fill(code.toLowerCase());
  await forgot.getByRole('button', { name: 'Use the code' }).click();
  await settled(forgot);
  await forgot.getByLabel('A password, of 12 characters or more').fill('seven blue lamps hum');
  await forgot.getByLabel('Once more').fill('seven blue lamps hum');
  await forgot.getByRole('button', { name: 'Save the password' }).click();
  await expect(forgot).toHaveURL(/\/sign-in$/);
  await signIn(forgot, 'seven blue lamps hum');
  await forgot.getByLabel('Code', { exact: true }).fill(codes[0]!.toLowerCase());
  await forgot.getByRole('button', { name: 'Go on' }).click();
  await expect(forgot).toHaveURL(/\/students$/);
  await odile.goto('/account');
  await expect(odile).toHaveURL(/\/sign-in/);
  await odile.context().close();

  // Whoever leaves hands their students on in the same step; here it is Hanneke who has some, and Odile who ends it.
  await forgot.goto('/school/people');
  await settled(forgot);
  const row = forgot.getByRole('listitem').filter({ has: forgot.getByRole('heading', { name: /^Hanneke Bruun/ }) });
  await row.locator('summary').click();
  await row.getByRole('button', { name: 'End it' }).click();
  await expect(row.getByText('Choose who has their students from now on.')).toBeVisible();
  await row.getByRole('combobox').selectOption('Samir Tadesse');
  await row.getByRole('button', { name: 'End it' }).click();
  await expectToast(forgot, 'Hanneke Bruun works here no longer.');
  await expect(forgot.getByRole('region', { name: 'Have left' })).toContainText('Hanneke Bruun');
  await page.goto('/students');
  await expect(page).toHaveURL(/\/sign-in/);
  const samir = (await app.db('people').where({ name: 'Samir Tadesse' }).first('id'))!;
  const managed = await app
    .db('team_members as m')
    .join('students as s', 's.id', 'm.student_id')
    .where({ 'm.role': 'caseManager', 's.first_name': 'Ansel', 'm.person_id': samir.id, 'm.until_date': null });
  expect(managed).toHaveLength(1);
  await forgot.context().close();
});

test('one’s own account: another name, another password, and a sign-in ended from elsewhere', async ({
  app,
  page,
  browser,
}) => {
  await signInAs(app, page, 'Lotte Varga');
  const there = await browser.newPage({ baseURL: app.url });
  await signInAs(app, there, 'Lotte Varga');
  await page.goto('/account');
  await settled(page);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByLabel('Name', { exact: true }).fill('Lotte Varga Lind');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expectToast(page, 'Saved.');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Lotte Varga Lind');
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Change the password' }) });
  await form.getByLabel('Your password').fill('not it');
  await form.getByLabel('A password, of 12 characters or more').fill(PASSWORD);
  await form.getByLabel('Once more').fill(PASSWORD);
  await form.getByRole('button', { name: 'Change the password' }).click();
  await expect(form.getByText('This is not your password.')).toBeVisible();
  await page.getByRole('button', { name: /^End the sign-in of / }).click();
  await expectToast(page, 'The sign-in has ended.');
  await there.goto('/account');
  await expect(there).toHaveURL(/\/sign-in/);
  await there.context().close();

  // A calendar program fetches what falls due, without a sign-in: by initials, until the address is ended.
  await page.request.post(`${app.url}/sign-out`, { form: {}, headers: { origin: app.url } });
  await signInAs(app, page);
  await page.goto('/account');
  await settled(page);
  await page.getByRole('button', { name: 'Make an address' }).click();
  const address = new URL(await page.getByLabel('The address for your calendar').inputValue()).pathname;
  const program = await browser.newContext({ baseURL: app.url });
  const fetched = await program.request.get(address);
  expect(fetched.headers()['content-type']).toContain('text/calendar');
  const calendar = await fetched.text();
  expect(calendar).toMatch(/SUMMARY:AD: progress report/);
  expect(calendar).not.toContain('Ansel');
  await page.getByRole('button', { name: 'End it' }).click();
  await expectToast(page, 'The address opens nothing any more.');
  expect((await program.request.get(address)).status()).toBe(404);
  await program.close();
});
