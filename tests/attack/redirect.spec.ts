// Being led from here to somewhere else.
import { expect, signInAs, test } from '../e2e/fixtures';

const elsewhere = [
  '/.//evil.example',
  '//evil.example',
  '/\\evil.example',
  '/./\\evil.example',
  '/x/..//evil.example',
  '/%2e//evil.example',
  '/\t/evil.example',
  'https://evil.example',
  'javascript:alert(1)',
];

test('neither a sign-in nor a preference leads to another site', async ({ app, page }) => {
  const { id } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const post = async (path: string, form: Record<string, string>) => {
    const answer = await page.request.post(`${app.url}${path}`, {
      form,
      headers: { origin: app.url },
      maxRedirects: 0,
    });
    expect(answer.status()).toBe(302);
    return new URL(answer.headers().location ?? '', app.url).origin;
  };
  for (const next of elsewhere) {
    expect(await post(`/sign-in?next=${encodeURIComponent(next)}`, { demo: id }), next).toBe(app.url);
    expect(await post('/preferences', { theme: 'dark', from: next }), next).toBe(app.url);
  }
  await signInAs(app, page);
});
