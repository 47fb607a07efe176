// What is sent slowly, or is too large, holds up nobody else.
import { randomBytes } from 'node:crypto';
import { connect as dial, type Socket } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import { makeShareLink } from '~/server/sharing/share-links';
import { expect, signInAs, studentId, test } from '../e2e/fixtures';

test.use({ ownServer: true });

/** Begins to send a body, and keeps a trickle of it coming. */
function drip(url: string, path: string, { cookie = '', length = 100_000 } = {}) {
  const { hostname, port, origin } = new URL(url);
  const socket = dial(Number(port), hostname);
  let answer = '';
  socket.on('data', (chunk) => (answer += chunk));
  socket.on('error', () => {});
  socket.write(
    `POST ${path} HTTP/1.1\r\nHost: ${hostname}:${port}\r\nOrigin: ${origin}\r\nCookie: ${cookie}\r\n` +
      `Content-Type: application/x-www-form-urlencoded\r\nContent-Length: ${length}\r\n\r\na=`,
  );
  const trickle = setInterval(() => socket.writable && socket.write('x'), 500);
  socket.on('close', () => clearInterval(trickle));
  return { socket, answer: () => answer };
}

/** Milliseconds that something takes. */
async function timed(work: () => Promise<unknown>): Promise<number> {
  const from = performance.now();
  await work();
  return performance.now() - from;
}

test('sixty slow bodies, of strangers and of a family with a link, leave the pages and /health as they are', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const ansel = await studentId(app.db, 'Ansel');
  const { id: personId } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const { id: school } = (await app.db('schools').first('id'))!;
  const way = { id: crypto.randomUUID(), readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
  const actor = { personId, schoolId: school, today: '2026-11-24' };
  const token = await makeShareLink(app.db, actor, ansel, way, new Date('2026-11-24T19:00:00Z'));
  const look = () => timed(() => page.request.get(`${app.url}/students/${ansel}`));
  await look();
  const quiet = Math.max(await look(), await look());
  const paths = ['/sign-in', '/desk', `/shared/${token}`];
  const drips = Array.from({ length: 60 }, (_, i) => drip(app.url, paths[i % 3]!));
  await pause(1500);
  const health = await page.request.get(`${app.url}/health`);
  expect(health.status()).toBe(200);
  // They held a connection each until they were done, and none was left: eight seconds, and then an error.
  expect(await look()).toBeLessThan(3 * quiet + 2000);
  // The sender is told, once it has taken too long; nothing of it reached the database.
  await expect
    .poll(() => drips.every(({ answer }) => /HTTP\/1\.1 (408|429)/.test(answer())), { timeout: 60_000 })
    .toBe(true);
  const waiting = await app.db.raw(
    `select count(*)::int as n from pg_stat_activity where datname = current_database() and state = 'idle in transaction'`,
  );
  expect(waiting.rows[0].n).toBe(0);
  for (const { socket } of drips) socket.destroy();
});

test('sixteen tablets that send photographs over bad Wi-Fi do not stop the others', async ({ app, page }) => {
  await signInAs(app, page);
  const ansel = await studentId(app.db, 'Ansel');
  const look = async () => {
    const times: number[] = [];
    for (let i = 0; i < 10; i++) times.push(await timed(() => page.request.get(`${app.url}/students/${ansel}`)));
    return times.sort((a, b) => a - b)[8]!;
  };
  await look();
  const quiet = await look();
  const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  const { hostname, port, origin } = new URL(app.url);
  const chunk = randomBytes(4096).toString('base64');
  // Two from each of eight people, as eight sessions would be: here one session counts for all, and has twelve.
  const tablets: Socket[] = Array.from({ length: 16 }, () => {
    const socket = dial(Number(port), hostname);
    socket.on('error', () => {});
    socket.write(
      `POST /students/${ansel}/sessions HTTP/1.1\r\nHost: ${hostname}:${port}\r\nOrigin: ${origin}\r\nCookie: ${cookie}\r\n` +
        'Content-Type: application/json\r\nContent-Length: 4000000\r\n\r\n{"a":"',
    );
    const more = setInterval(() => socket.writable && socket.write(chunk), 200);
    socket.on('close', () => clearInterval(more));
    return socket;
  });
  await pause(1000);
  expect(await look()).toBeLessThan(3 * quiet + 100);
  expect((await page.request.get(`${app.url}/health`)).status()).toBe(200);
  for (const socket of tablets) socket.destroy();
});

const MB = 1024 * 1024;
test('each page that takes a file takes one just under what it says, and refuses one just over', async ({
  app,
  page,
}) => {
  await signInAs(app, page);
  const ansel = await studentId(app.db, 'Ansel');
  const { id: entry } = (await app.db('entries').where({ student_id: ansel, withdrawn: false }).first('id'))!;
  const pages: [path: string, largest: number][] = [
    ['/imports', 8 * MB],
    ['/records', 80 * MB],
    ['/school/new-year', 2 * MB],
    [`/students/${ansel}/evidence/of/${entry}`, 15 * MB],
    [`/class/work-samples/${crypto.randomUUID()}`, 15 * MB],
  ];
  const bodyOf = (size: number) => ({
    multipart: {
      ...{ id: crypto.randomUUID(), intent: 'calendar', kind: 'goals' },
      file: { name: 'file.bin', mimeType: 'application/octet-stream', buffer: Buffer.alloc(size, 0x41) },
    },
    headers: { origin: app.url },
    maxRedirects: 0,
    timeout: 60_000,
  });
  for (const [path, largest] of pages) {
    const under = await page.request.post(`${app.url}${path}`, bodyOf(largest - 1000));
    // It was read, and found to be nothing of ours.
    expect([400, 404], `${path} just under`).toContain(under.status());
    const over = await page.request.post(`${app.url}${path}`, bodyOf(largest + 100_000)).catch(() => null);
    expect(over?.status() ?? 413, `${path} just over`).toBe(413);
  }
  for (const path of ['sessions', 'behavior-entries', 'notes']) {
    const send = (size: number) =>
      page.request.post(`${app.url}/students/${ansel}/${path}`, {
        ...{ data: JSON.stringify({ filler: 'x'.repeat(size) }), maxRedirects: 0 },
        headers: { origin: app.url, 'content-type': 'application/json' },
      });
    expect([400, 422], path).toContain((await send(5 * MB - 1000)).status());
    expect((await send(5 * MB + 1000).catch(() => null))?.status() ?? 413, path).toBe(413);
  }
  // Everything else takes what a form is.
  const form = await page.request.post(`${app.url}/students/${ansel}/team`, bodyOf(MB)).catch(() => null);
  expect(form?.status() ?? 413).toBe(413);
});

test('who has not signed in sends no file at all', async ({ app, request }) => {
  const file = { name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.alloc(2 * MB) };
  const answer = await request.post(`${app.url}/records`, { multipart: { file }, headers: { origin: app.url } });
  expect(answer.status()).toBe(401);
});

test('the log knows patterns of addresses: no key, no name, no word that was typed', async ({ app, request }) => {
  const secrets = ['SECRETTOKEN', 'For%20the%20parents', 'Ada%20Abbott'];
  const paths = [
    '/account/by/SECRETTOKEN',
    '/calendar/SECRETTOKEN/due-dates.ics',
    '/shared/SECRETTOKEN',
    '/read/SECRETTOKEN',
    '/invited/SECRETTOKEN.data',
    '/students/7f0f2c1e-5a0f-4d0c-8a43-222222222222/sharing/record/For%20the%20parents',
    '/Ada%20Abbott/SECRETTOKEN',
    '/assets/SECRETTOKEN.js',
  ];
  for (const path of paths) await request.get(`${app.url}${path}`, { maxRedirects: 0 });
  for (const path of [...paths.slice(0, 3), '/desk']) {
    const headers = (await request.get(`${app.url}${path}`, { maxRedirects: 0 })).headers();
    expect(headers['cache-control'], path).toBe('no-store');
    expect(headers['referrer-policy'], path).toBe('no-referrer');
    expect(headers['x-robots-tag'], path).toContain('noindex');
  }
  await expect.poll(() => app.log()).toContain('/account/by/:token');
  for (const secret of secrets) expect(app.log()).not.toContain(secret);
});
