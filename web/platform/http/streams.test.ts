import { afterEach, describe, expect, it, vi } from 'vitest';

import { logFailure } from './log';
import { endStreams, eventStream } from './streams';

vi.mock('./log', () => ({ logFailure: vi.fn() }));

afterEach(() => {
  endStreams();
  vi.useRealTimers();
});

type Send = (event: object) => void;

/** A stream with what it is told by, and what it has ended. */
function opened(of = 'somebody') {
  const signal = new AbortController();
  let send: Send = () => {};
  const ended = vi.fn();
  const answer = eventStream({
    of,
    signal: signal.signal,
    begin: async (given) => {
      send = given;
      return ended;
    },
  });
  const reader = answer.body!.getReader();
  const next = async () => {
    const { done, value } = await reader.read();
    return done ? null : new TextDecoder().decode(value);
  };
  return { answer, next, ended, leave: () => signal.abort(), say: (event: object) => send(event) };
}

describe('a stream of events', () => {
  it('begins with a beat, says what it is told, and is nothing that anything between may keep or compress', async () => {
    const { answer, next, say } = opened();
    expect(answer.headers.get('Content-Type')).toBe('text/event-stream');
    expect(answer.headers.get('Cache-Control')).toContain('no-transform');
    expect(await next()).toBe('retry: 2000\nevent: beat\ndata: {}\n\n');
    say({ studentId: 'a', what: 'steps' });
    expect(await next()).toBe('data: {"studentId":"a","what":"steps"}\n\n');
  });

  it('ends its listening once when the browser goes away, and says nothing after that', async () => {
    const { next, ended, leave, say } = opened();
    await next();
    leave();
    leave();
    say({ late: true });
    expect(await next()).toBeNull();
    expect(ended).toHaveBeenCalledTimes(1);
  });

  it('stands open eight times for one person: the oldest gives way; others are not counted with them', async () => {
    const streams = Array.from({ length: 9 }, () => opened());
    const another = opened('another');
    for (const one of [...streams, another]) expect(await one.next()).toContain('beat');
    expect(await streams[0]!.next()).toBeNull();
    expect(streams.map(({ ended }) => ended.mock.calls.length)).toEqual([1, ...Array(8).fill(0)]);
    another.say({ still: true });
    expect(await another.next()).toContain('still');
  });

  it('beats while nothing happens, and is over after ten minutes, so that rights are looked up anew', async () => {
    vi.useFakeTimers();
    const { next, ended } = opened();
    await next();
    await vi.advanceTimersByTimeAsync(15_000);
    expect(await next()).toBe('event: beat\ndata: {}\n\n');
    await vi.advanceTimersByTimeAsync(10 * 60_000);
    expect(ended).toHaveBeenCalledTimes(1);
  });

  it('ends with the server, and where nothing can be listened to', async () => {
    const { next, ended } = opened();
    await next();
    endStreams();
    expect(await next()).toBeNull();
    expect(ended).toHaveBeenCalledTimes(1);
    const failing = eventStream({
      of: 'somebody',
      signal: new AbortController().signal,
      begin: () => Promise.reject(new Error('The database is gone.')),
    });
    const text = await failing.text();
    expect(text).toContain('event: beat');
    expect(text).not.toContain('gone');
    expect(logFailure).toHaveBeenCalledTimes(1);
  });
});
