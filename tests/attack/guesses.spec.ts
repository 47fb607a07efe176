// Guessing passwords, many at once, from the one address that a school has.
import { expect, test } from '../e2e/fixtures';

test.use({ ownServer: true });

const hanneke = 'hanneke.bruun@quince-lane.example';
const right = 'quince-and-thyme';

test('a hundred guesses at the same moment are eight; the others at this address, and a browser that is known, get in', async ({
  app,
  playwright,
}) => {
  const visitor = () => playwright.request.newContext({ baseURL: app.url, extraHTTPHeaders: { origin: app.url } });
  const attempt = async (from: Awaited<ReturnType<typeof visitor>>, email: string, password: string) =>
    (await from.post('/sign-in', { form: { email, password }, maxRedirects: 0 })).status();
  const known = await visitor();
  expect(await attempt(known, hanneke, right)).toBe(302);

  const guesser = await visitor();
  const answers = await Promise.all(Array.from({ length: 100 }, (_, i) => attempt(guesser, hanneke, `guess ${i}`)));
  expect(answers.filter((status) => status === 400)).toHaveLength(8);
  expect(answers.filter((status) => status === 429)).toHaveLength(92);
  expect(await attempt(guesser, hanneke, right)).toBe(429);

  expect(await attempt(await visitor(), 'noor.haddad@quince-lane.example', right)).toBe(302);
  expect(await attempt(known, hanneke, right)).toBe(302);
  // Nothing of who was guessed at stands in the counters.
  expect(JSON.stringify(await app.db('rate_limits'))).not.toContain('hanneke');
});
