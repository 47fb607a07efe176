import { describe, expect, it } from 'vitest';
import { NotAllowed, NotFound } from '~/server/platform/failures';
import { withFailures } from './failure-answer';
import { localPath } from './local-path';

process.env.DATABASE_URL ??= 'postgres://unused';
const { loggedPath } = await import('./log');

describe('what the log may know', () => {
  it('holds no id, no token, no search word', () => {
    expect(loggedPath('/shared/Zm9vYmFy?goal=2a')).toBe('/shared/:token');
    expect(loggedPath('/shared/Zm9vYmFy.data')).toBe('/shared/:token');
    expect(loggedPath('/desk/in/Zm9vYmFy')).toBe('/desk/in/:token');
    expect(loggedPath('/seat/in/Zm9vYmFy')).toBe('/seat/in/:token');
    expect(loggedPath('/stack/Zm9vYmFy/7f0f2c1e-5a0f-4d0c-8a43-222222222222')).toBe('/stack/:token/:id');
    expect(loggedPath('/desk/steps?of=7f0f2c1e-5a0f-4d0c-8a43-222222222222')).toBe('/desk/steps');
    expect(loggedPath('/students/7f0f2c1e-5a0f-4d0c-8a43-222222222222/individual-report?q=Ada')).toBe(
      '/students/:id/individual-report',
    );
  });
});

describe('where a sign-in may lead', () => {
  it.each([
    ['/students?show=attention', '/students?show=attention'],
    ['//elsewhere.example', null],
    ['/\\elsewhere.example', null],
    ['/.//elsewhere.example', null],
    ['/students/..//elsewhere.example', null],
    ['/%2e//elsewhere.example', null],
    ['/\t/elsewhere.example', null],
    ['/students/../team', '/team'],
    ['https://elsewhere.example/', null],
    ['/%5celsewhere', '/%5celsewhere'],
    ['', null],
    [null, null],
  ])('%s', (text, expected) => {
    expect(localPath(text)).toBe(expected);
  });
});

describe('failures as answers', () => {
  const statusOf = (error: unknown) =>
    withFailures(async () => {
      throw error;
    })(null).catch((answer) => (answer as { init?: { status?: number } }).init?.status ?? answer);

  it('have the right status, and what is our own fault stays a fault', async () => {
    expect(await statusOf(new NotFound('x'))).toBe(404);
    expect(await statusOf(new NotAllowed('x'))).toBe(403);
    expect(await statusOf(Object.assign(new Error('gone'), { code: 'ECONNREFUSED' }))).toBe(503);
    const fault = new TypeError('ours');
    expect(await statusOf(fault)).toBe(fault);
  });
});
