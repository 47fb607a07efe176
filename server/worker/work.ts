import { setTimeout as pause } from 'node:timers/promises';
import { wallTime } from '~/core/calendar/zone';
import { nextBatchAt, openBatches } from '../documents/batches';
import { makeBatch } from '../documents/make-batch';
import { collectMessages, nextDigestAt } from '../messages/collect';
import { deliver, dueMessages, type MailServer, nextMessageAt, settleInterrupted } from '../messages/deliver';
import { backUpNight, backupFailure } from '../platform/backup/backup';
import { connect, type Database, isDatabaseGone } from '../platform/db/database';
import { noteBackup } from '../platform/db/health';
import { applyRules } from '../rules/apply';
import { allSchools, type School } from '../school/school';
import { destroyDue } from '../student-record/destroy';
import { keepReceipts } from '../student-record/receipts';
import { lookByNight, nextNight } from './rules-by-night';
import { tidyUp } from './tidy-up';

/** Messages that are handed over at the same time. */
export const AT_ONCE = 8;
/** Even when nobody tells it anything it looks for work this often, in milliseconds. */
const LONGEST_SLEEP = 30_000;
/** Unless somebody tells it, it looks no more often than this, whatever says that something is due. */
const SHORTEST_SLEEP = 1000;
/** After a failure it waits, ever longer, from the first to the last of these, in milliseconds. */
const [FIRST_PAUSE, LONGEST_PAUSE] = [500, 30_000];
const HOUR = 3_600_000;

export interface Surroundings {
  db: Database;
  mailServer: MailServer;
  publicUrl: string;
  clock: () => Date;
  /** Ends the work; what is under way is finished. */
  signal: AbortSignal;
  /** Somebody has told that there is work. */
  bell: Bell;
  /** Of what went wrong somebody should know. */
  complain: (error: unknown) => void;
  /** The database, as its owner: only that destroys a record. Null for never. */
  ownerUrl?: string | null;
  /** Where a copy of the database is put each night; null for nowhere. */
  backup?: NightlyBackup | null;
}

export interface NightlyBackup {
  /** The database, as its owner. */
  url: string;
  folder: string;
  passphrase?: string | undefined;
}

/** Wakes whoever sleeps beside it. */
export class Bell {
  #wakers = new Set<() => void>();
  #rings = 0;
  ring = () => {
    this.#rings++;
    for (const wake of this.#wakers) wake();
  };
  /** What to compare with, so that no ring between looking and sleeping is missed. */
  get rings() {
    return this.#rings;
  }
  /** Sleeps until it rings again after `since`, the time has passed, or the signal ends it. */
  async sleep(milliseconds: number, since: number, signal: AbortSignal): Promise<void> {
    if (this.#rings !== since || signal.aborted || milliseconds <= 0) return;
    await new Promise<void>((resolve) => {
      const wake = () => {
        clearTimeout(timer);
        this.#wakers.delete(wake);
        signal.removeEventListener('abort', wake);
        resolve();
      };
      const timer = setTimeout(wake, milliseconds);
      this.#wakers.add(wake);
      signal.addEventListener('abort', wake, { once: true });
    });
  }
}

/**
 * Does what need not be waited for, until the signal ends it: messages leave, files of groups are made, what is over is cleared.
 * Call it only where no other worker can be at work.
 */
export async function work(around: Surroundings): Promise<void> {
  await Promise.all([
    goOn(around, messageRound),
    goOn(around, batchRound),
    goOn(around, ruleRound),
    goOn(around, destructionRound),
    goOn({ ...around, bell: new Bell() }, backupRound),
    // Every hour, whatever rings.
    goOn({ ...around, bell: new Bell() }, async ({ db, clock }) => {
      await tidyUp(db, clock());
      return new Date(clock().getTime() + HOUR);
    }),
  ]);
}

/** One round of a kind of work; resolves to when it has to look again at the latest, null when nothing is planned. */
type Round = (around: Surroundings & { schools: School[] }) => Promise<Date | null>;

/** Rounds one after the other, each when there is work; after a failure later and later. */
async function goOn(around: Surroundings, round: Round): Promise<void> {
  const { db, clock, signal, bell, complain } = around;
  let wait = FIRST_PAUSE;
  while (!signal.aborted) {
    const heard = bell.rings;
    try {
      const schools = await allSchools(db);
      const next = schools.length > 0 ? await round({ ...around, schools }) : null;
      wait = FIRST_PAUSE;
      const until = next ? Math.max(SHORTEST_SLEEP, next.getTime() - clock().getTime()) : LONGEST_SLEEP;
      await bell.sleep(until, heard, signal);
    } catch (error) {
      // A lost database comes back; of anything else somebody should know.
      if (!isDatabaseGone(error)) complain(error);
      await pause(wait, undefined, { signal }).catch(onlyEnded);
      wait = Math.min(LONGEST_PAUSE, 2 * wait);
    }
  }
}

function onlyEnded(error: unknown): void {
  if (!(error instanceof Error) || error.name !== 'AbortError') throw error;
}

/** By then everybody is asleep, and the day is over. */
const BACKUP_AT = '02:00';

/** The copy of a night, once, as soon as it is time: also in the morning, where nothing ran at night. */
const backupRound: Round = async ({ db, backup, schools: [school], clock, complain }) => {
  if (!backup || !school) return null;
  const now = clock();
  const { on: day, time } = wallTime(now, school.timeZone);
  await keepReceipts(db, backup.folder);
  if (time >= BACKUP_AT) {
    try {
      await backUpNight(backup.url, { ...backup, day, now });
      await noteBackup(db, null);
    } catch (error) {
      // The next try is in a quarter of an hour; until then it is said where people look.
      complain(error);
      await noteBackup(db, backupFailure(error));
    }
  }
  return new Date(now.getTime() + HOUR / 4);
};

/** What is confirmed to be destroyed, or has waited for a week, is: as the owner, on a connection of its own. */
const destructionRound: Round = async ({ db, ownerUrl, backup, clock }) => {
  const open = await db('destructions').where({ done_at: null, taken_back_at: null }).first('id');
  if (!open || !ownerUrl) return null;
  const owner = connect(ownerUrl, { poolSize: 1, longest: 0 });
  try {
    if ((await destroyDue(owner, clock())) > 0 && backup) await keepReceipts(db, backup.folder);
  } finally {
    await owner.destroy();
  }
  return new Date(clock().getTime() + HOUR);
};

const messageRound: Round = async ({ db, schools, publicUrl, mailServer, clock, signal, complain }) => {
  // Between two rounds nothing is being handed over: what still says so was left by a round that failed.
  await settleInterrupted(db, mailServer);
  for (const school of schools) await collectMessages(db, school, clock());
  const byId = new Map(schools.map((school) => [school.id, school]));
  for (;;) {
    const due = await dueMessages(db, clock());
    if (!due.some(({ schoolId }) => byId.has(schoolId)) || signal.aborted) break;
    const one = async () => {
      for (let message = due.shift(); message && !signal.aborted; message = due.shift()) {
        const school = byId.get(message.schoolId);
        // A school that was begun since is there in the next round.
        if (school) await deliver(db, message.id, { school, publicUrl, mailServer, now: clock(), signal, complain });
      }
    };
    const ends = await Promise.allSettled(Array.from({ length: AT_ONCE }, one));
    const failed = ends.find((end) => end.status === 'rejected');
    if (failed) throw failed.reason;
  }
  const digests: (Date | null)[] = [];
  for (const school of schools) digests.push(await nextDigestAt(db, school, clock()));
  return soon(clock(), await nextMessageAt(db), ...digests);
};

const ruleRound: Round = async ({ db, schools, clock, signal }) => {
  for (const school of schools) {
    while (!signal.aborted && (await applyRules(db, school, clock())));
    await lookByNight(db, school, clock());
  }
  return soon(clock(), ...schools.map((school) => nextNight(school, clock())));
};

const batchRound: Round = async ({ db, schools, clock, signal, complain }) => {
  for (const { id, schoolId } of await openBatches(db, clock())) {
    if (signal.aborted) break;
    const school = schools.find((one) => one.id === schoolId);
    if (school) await makeBatch(db, id, { school, now: clock(), signal, complain });
  }
  return soon(clock(), await nextBatchAt(db));
};

/** The first of some moments; not later than the next look that is taken even when nobody tells anything. */
const soon = (now: Date, ...dates: (Date | null)[]): Date =>
  dates.reduce<Date>(
    (first, date) => (date !== null && date < first ? date : first),
    new Date(now.getTime() + LONGEST_SLEEP),
  );
