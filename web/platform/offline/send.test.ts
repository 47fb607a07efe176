import { afterEach, describe, expect, it, vi } from 'vitest';
import type { WaitingChange, WaitingSession } from '~/core/entries/waiting';

import { holdsAll, send, type Why, whyWords } from './send';

const waiting: WaitingSession = {
  kind: 'session',
  id: 'w',
  personId: 'p',
  student: { id: 's', shortName: 'Ada E.' },
  session: { on: '2026-11-24', time: '09:00', observerId: 'p', locationId: null, entries: [] },
  goals: [],
  choices: { people: [], locations: [], today: '2026-11-24' },
  savedAt: 0,
  problem: null,
};
const answer = (status: number, body: object | null = null) => {
  const fetching = vi.fn(async (..._: unknown[]) => new Response(body && JSON.stringify(body), { status }));
  vi.stubGlobal('fetch', fetching);
  return fetching;
};
afterEach(() => vi.unstubAllGlobals());

describe('sending what waits', () => {
  it('says whose it is, and follows nobody to a sign-in', async () => {
    const fetching = answer(200, { ids: [] });
    expect(await send(waiting)).toEqual({ is: 'saved' });
    const [path, init] = fetching.mock.calls[0] as [string, RequestInit];
    expect([path, init.redirect, JSON.parse(String(init.body)).personId]).toEqual([
      '/students/s/sessions',
      'manual',
      'p',
    ]);
  });

  it('sends an incident and counts to where incidents are recorded, with nothing of what shows them here', async () => {
    const fetching = answer(200, { ids: [] });
    const whose = { id: 'w', personId: 'p', student: { id: 's', shortName: 'Ada E.' }, savedAt: 0, problem: null };
    await send({
      kind: 'incident',
      ...whose,
      incident: { id: 'n' } as never,
      incidentScreen: { wall: 'secret' } as never,
    });
    await send({ kind: 'counts', ...whose, counts: { counts: [] }, said: ['Calls out: none.'] });
    const sent = fetching.mock.calls.map(([path, init]) => [path, JSON.parse(String((init as RequestInit).body))]);
    expect(sent).toEqual([
      ['/students/s/behavior-entries', { personId: 'p', incident: { id: 'n' } }],
      ['/students/s/behavior-entries', { personId: 'p', counts: { counts: [] } }],
    ]);
  });

  it('sends a change to the page of its record, for whoever made it, and hands it back where that was changed meanwhile', async () => {
    const change: WaitingChange = {
      ...{ kind: 'change', id: 'w', personId: 'p', student: { id: 's', shortName: 'Ada E.' }, savedAt: 0 },
      ...{ problem: null, to: '/students/s/entries/e', change: { intent: 'withdraw', version: 3, why: 'Twice.' } },
    };
    const fetching = answer(200, []);
    expect(await send(change)).toEqual({ is: 'saved' });
    const [path, init] = fetching.mock.calls[0] as [string, RequestInit];
    expect([path, new Headers(init.headers).get('X-For'), JSON.parse(String(init.body)).version]).toEqual([
      ...['/students/s/entries/e.data', 'p', 3],
    ]);
    for (const status of [400, 409, 422]) {
      answer(status, []);
      const sent = await send(change);
      expect(sent.is === 'refused' && sent.messages.form?.length, `${status}`).toBeGreaterThan(20);
    }
    answer(202);
    expect(await send(change)).toEqual({ is: 'waits', why: 'signedOut' });
  });

  it('hands back what the server will not take, with its messages, or why in words', async () => {
    answer(400, { messages: { on: 'This lies in the future.' } });
    expect(await send(waiting)).toEqual({ is: 'refused', messages: { on: 'This lies in the future.' } });
    answer(422, { messages: { note: 'A character.' } });
    expect(await send(waiting)).toEqual({ is: 'refused', messages: { note: 'A character.' } });
    for (const status of [403, 404, 413, 422]) {
      answer(status);
      const sent = await send(waiting);
      expect(sent.is === 'refused' && sent.messages.form?.length, `${status}`).toBeGreaterThan(20);
    }
  });

  it.each<[number, Why, boolean]>([
    [401, 'signedOut', true],
    [409, 'someoneElse', false],
    [429, 'tooMany', true],
    [500, 'ours', false],
    [503, 'unreachable', true],
  ])('keeps it after a %i: %s; whether that holds for the others too: %s', async (status, why, holds) => {
    answer(status);
    expect(await send(waiting)).toEqual({ is: 'waits', why });
    expect(holdsAll(why)).toBe(holds);
    expect(Object.values(whyWords[why]).join(' ').length).toBeGreaterThan(30);
  });

  it('keeps it where there is nobody to ask, or one would have to sign in first', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')));
    expect(await send(waiting)).toEqual({ is: 'waits', why: 'unreachable' });
    vi.stubGlobal('fetch', async () => ({ ok: false, status: 0, type: 'opaqueredirect' }));
    expect(await send(waiting)).toEqual({ is: 'waits', why: 'signedOut' });
  });
});
