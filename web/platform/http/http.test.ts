import { describe, expect, it } from 'vitest';
import { NotAllowed, NotFound } from '~/server/platform/failures';
import { withFailures } from './failure-answer';
import { localPath } from './local-path';

process.env.DATABASE_URL ??= 'postgres://unused';
const { knowRoutes } = await import('./routes-known');
const { loggedPath } = await import('./log');
const { addressKey } = await import('./security');

describe('what the log may know', () => {
  it('is the pattern of an address: no id, no token, no word', () => {
    const route = (id: string, path: string, parentId?: string) => ({ [id]: { id, path, parentId, module: {} } });
    knowRoutes({
      ...route('shared', 'shared/:token'),
      ...route('stack', 'stack/:token/:sampleId'),
      ...{ shell: { id: 'shell', parentId: undefined, module: {} } },
      ...route('report', 'students/:studentId/individual-report', 'shell'),
      ...route('all', '*'),
    } as never);
    expect(loggedPath('/shared/Zm9vYmFy?goal=2a')).toBe('/shared/:token');
    expect(loggedPath('/shared/Zm9vYmFy.data')).toBe('/shared/:token.data');
    expect(loggedPath('/stack/Zm9vYmFy/7f0f2c1e')).toBe('/stack/:token/:sampleId');
    expect(loggedPath('/students/7f0f2c1e/individual-report?q=Ada')).toBe('/students/:studentId/individual-report');
    expect(loggedPath('/Ada%20Abbott/anything')).toBe('/*');
    expect(loggedPath('/%E0%A4%A')).toBe('/*');
  });
});

describe('whose tries are counted together', () => {
  // The notation is that of RFC 4291, 2.2.
  it.each([
    ['192.0.2.7', '192.0.2.7'],
    ['::ffff:192.0.2.7', '192.0.2.7'],
    ['2001:db8:1:2:aaaa::1', '2001:db8:1:2::/64'],
    ['2001:0DB8:1:2:bbbb:1:2:3', '2001:db8:1:2::/64'],
    ['2001:db8::1', '2001:db8:0:0::/64'],
    ['fe80::1%eth0', 'fe80:0:0:0::/64'],
    ['::1', '0:0:0:0::/64'],
    ['unknown', 'unknown'],
  ])('%s counts as %s', (address, key) => {
    expect(addressKey(address)).toBe(key);
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
