import { expect, settled, signInAs, studentId, test } from './fixtures';

const email = 'hanneke.bruun@quince-lane.example';

// What a server remembers of wrong tries, or writes to its log, is this test’s alone.
test.use({ ownServer: true });

test('a person signs in with email and password, and is led to where they were going', async ({ app, page }) => {
  const ansel = await studentId(app.db, 'Ansel');
  await page.goto(`/students/${ansel}/individual-report`);
  await expect(page).toHaveURL(/\/sign-in\?next=/);
  await page.getByLabel('Email address').fill(email);
  await page.getByLabel('Password').fill('quince-and-thyme');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(new RegExp(`/students/${ansel}/individual-report$`));
});

test('a wrong password and an unknown account get the same words, and what was typed stays', async ({ page }) => {
  await page.goto('/sign-in');
  await settled(page);
  const tryAs = async (address: string) => {
    await page.getByLabel('Email address').fill(address);
    await page.getByLabel('Password').fill('wrong');
    const answered = page.waitForResponse((response) => response.request().method() === 'POST');
    await page.getByRole('button', { name: 'Sign in' }).click();
    expect((await answered).status()).toBe(400);
    await expect(page.getByLabel('Email address')).toHaveValue(address);
    return page.getByRole('alert').textContent();
  };
  const known = await tryAs(email);
  expect(known).toBe('Email or password is wrong.');
  expect(await tryAs('nobody@quince-lane.example')).toBe(known);
});

test('an empty form says so at each field', async ({ page }) => {
  await page.goto('/sign-in');
  await settled(page);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('Type your email address.')).toBeVisible();
  await expect(page.getByText('Type your password.')).toBeVisible();
});

test('after eight wrong tries the account has to wait, even with the right password', async ({ app, request }) => {
  const attempt = (password: string) =>
    request.post('/sign-in', { form: { email, password }, headers: { origin: app.url }, maxRedirects: 0 });
  for (let i = 0; i < 8; i++) expect((await attempt('wrong')).status()).toBe(400);
  const refused = await attempt('quince-and-thyme');
  expect(refused.status()).toBe(429);
  expect(await refused.text()).toContain('Too many tries.');
});

test('signing out ends the session; everywhere ends all of them', async ({ page, browser, app }) => {
  await signInAs(app, page);
  const elsewhere = await browser.newPage({ baseURL: app.url });
  await signInAs(app, elsewhere);
  await page.goto('/account');
  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(page).toHaveURL(/\/sign-in$/);
  await elsewhere.goto('/students');
  await expect(elsewhere).toHaveURL(/\/sign-in/);
  expect(await app.db('sign_in_sessions').count().first()).toEqual({ count: '0' });
});

test('the demo people sign in with one tap, and are only there in a demo', async ({ app, page }) => {
  await page.goto('/sign-in');
  await expect(page.getByRole('button', { name: /case manager of 12/ })).toBeVisible();
  await page.getByRole('button', { name: /Noor Haddad/ }).click();
  await expect(page.getByRole('link', { name: 'Account of N. Haddad' })).toBeVisible();
  await page.context().clearCookies();
  await page.goto('/sign-in');
  const hanneke = await app.db('people').where({ email }).first('id');
  await app.db('schools').update({ is_demo: false });
  await page.reload();
  await expect(page.getByRole('complementary', { name: 'Demo people' })).toHaveCount(0);
  const forged = await page.request.post('/sign-in', {
    form: { demo: hanneke!.id },
    headers: { origin: app.url },
    maxRedirects: 0,
  });
  expect(forged.status()).toBe(400);
});
