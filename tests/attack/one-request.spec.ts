// One request must not fell the house: what a stranger may send in a few bytes.
import { readFileSync } from 'node:fs';
import { request as send } from 'node:http';
import { expect, test } from '../e2e/fixtures';

test.use({ ownServer: true });

/** The memory that a process holds, in MB. */
const memoryOf = (pid: number) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** Sends bytes as a form, as a browser on this site would, and nothing but them. */
function post(url: string, body: string, type = 'application/x-www-form-urlencoded') {
  return new Promise<{ status: number; ms: number; text: string }>((resolve, reject) => {
    const start = performance.now();
    const headers = { origin: new URL(url).origin, 'content-type': type, 'content-length': Buffer.byteLength(body) };
    const sent = send(url, { method: 'POST', headers }, (answer) => {
      let text = '';
      answer.on('data', (chunk) => (text += chunk));
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, ms: performance.now() - start, text }));
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

const bodies: Record<string, string> = {
  'an index of millions': 'a[9999999]=1',
  'the same, encoded': 'a%5B9999999%5D=1',
  'as a path': 'a.9999999=1',
  'many levels': `${'a.'.repeat(60)}a=1`,
  'a prototype': '__proto__[isAdmin]=1',
  'a constructor': 'constructor.prototype.x=1',
  'a hundred thousand fields': 'a=1&'.repeat(100_000),
};

test('a form that no page of ours sends is refused at once, and costs no memory', async ({ app, request }) => {
  const pid = app.process.pid as number;
  await post(`${app.url}/sign-in`, 'email=x&password=y');
  const before = memoryOf(pid);
  for (const [what, body] of Object.entries(bodies)) {
    const { status, ms } = await post(`${app.url}/sign-in`, body);
    expect(status, what).toBe(400);
    // A tenth of a second by itself; a busy machine gets ten times that. It took nine seconds, and then the server.
    expect(ms, what).toBeLessThan(1000);
  }
  expect(memoryOf(pid) - before).toBeLessThan(60);
  expect((await request.get('/health')).status()).toBe(200);
});

test('in every encoding, and at every address that takes a form from strangers', async ({ app, request }) => {
  const boundary = 'x'.repeat(20);
  const parts = `--${boundary}\r\nContent-Disposition: form-data; name="a[9999999]"\r\n\r\n1\r\n--${boundary}--\r\n`;
  expect((await post(`${app.url}/sign-in`, parts, `multipart/form-data; boundary=${boundary}`)).status).toBe(400);
  expect((await post(`${app.url}/sign-in`, 'no parts', `multipart/form-data; boundary=${boundary}`)).status).toBe(400);
  expect((await post(`${app.url}/preferences`, 'a[9999999]=1')).status).toBe(400);
  expect((await post(`${app.url}/sign-in.data`, 'a[9999999]=1')).status).toBe(400);
  expect((await post(`${app.url}/sign-in`, '{"a":', 'application/json')).status).toBe(400);
  expect((await request.get('/health')).status()).toBe(200);
});
