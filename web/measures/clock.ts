import { z } from 'zod';
import { defined } from '~/core/defined';

/** A stopwatch that goes by timestamps: a locked screen, a reload or a sleeping tab loses no second. */
export const clock = z.object({
  /** When it was last started, in milliseconds since 1970; null while it stands still. */
  startedAt: z.number().nullable(),
  /** Seconds it had gone before that. */
  before: z.number(),
});
export type Clock = z.infer<typeof clock>;

export const stoppedClock: Clock = { startedAt: null, before: 0 };

/** Seconds on the clock at an instant. */
export function secondsOn({ startedAt, before }: Clock, now: number): number {
  return before + (startedAt === null ? 0 : Math.max(0, (now - startedAt) / 1000));
}

export const isRunning = ({ startedAt }: Clock) => startedAt !== null;

export function started(clock: Clock, now: number): Clock {
  return clock.startedAt === null ? { ...clock, startedAt: now } : clock;
}

export function stopped(clock: Clock, now: number): Clock {
  return { startedAt: null, before: secondsOn(clock, now) };
}

/** “0:07”, “12:30”, “1:02:05”, as a stopwatch shows it. */
export function stopwatch(seconds: number): string {
  const whole = Math.floor(seconds);
  const two = (n: number) => String(n).padStart(2, '0');
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/**
 * A length of time as people type it: “45” or “45 s” are seconds, “1:30” is a minute and a half, “2 min” two minutes.
 *
 * @returns seconds; null for what is none
 */
export function secondsFrom(text: string): number | null {
  const clock = /^(?:(\d+):)?(\d{1,3}):(\d{2})$/.exec(text.trim());
  if (clock) return Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3]);
  const plain = /^(\d+(?:[.,]\d+)?)\s*(s|min|m|h)?$/.exec(text.trim());
  if (!plain) return null;
  const unit = { s: 1, min: 60, m: 60, h: 3600 }[plain[2] ?? 's'] ?? 1;
  return Number(defined(plain[1]).replace(',', '.')) * unit;
}
