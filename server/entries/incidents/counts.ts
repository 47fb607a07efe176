import { z } from 'zod';
import { defined } from '~/core/defined';
import type { WatchedStretch } from '~/core/entries/incidents/incident';
import type { CountCorrection, CountInput, CountsInput } from '~/core/entries/incidents/incident-input';
import type { WithdrawalInput } from '~/core/entries/observation';
import type { Database } from '../../platform/db/database';
import { held, rowsOf } from '../../platform/db/rows';
import { Invalid, NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import type { StudentAccess } from '../../students/access';
import type { SessionFacts } from '../check-session';
import { changeRecord, recordedColumns, recordedNames, recordedRow, revisedEntries } from '../corrections';
import type { Naming } from './incidents';
import { checkWhen, insertOnce, type Moment } from './record-incident';

/** How often a behavior occurred in an observation window. */
const behaviorCountRow = recordedRow.extend({
  behaviorId: held(z.string()),
  on: z.string(),
  time: z.string(),
  part: z.string().nullable(),
  minutes: held(z.number()),
  count: held(z.number()),
  seconds: z.number().nullable(),
  note: z.string(),
  besideId: z.string().nullable(),
});
export type BehaviorCount = z.infer<typeof behaviorCountRow>;

const query = (from = 'entries') => `
  select ${recordedColumns('t')}, t.target_id as "behaviorId", t.observed_on as "on", t.observed_time as "time", t.part,
         t.minutes, t.count, t.seconds, t.note, t.beside_id as "besideId"
    from ${from} t ${recordedNames('t')}`;

/** The stretches of watching of some students that stand, newest first. */
export async function countsOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { ids }: { ids?: readonly string[] | undefined } = {},
): Promise<BehaviorCount[]> {
  return rowsOf(
    db,
    behaviorCountRow,
    `${query()} where t.student_id = any(:studentIds) and t.kind = 'count' and not t.withdrawn ${ids ? 'and t.id = any(:ids)' : ''}
      order by t.observed_on desc, t.observed_time desc, t.recorded_at desc`,
    { studentIds: [...studentIds], ids: [...(ids ?? [])] },
  );
}

/** @throws NotFound when the student has no such count */
export async function countOf(
  db: Database,
  studentId: string,
  id: string,
  { lock = false } = {},
): Promise<BehaviorCount> {
  const found = await rowsOf(
    db,
    behaviorCountRow,
    `${query()} where t.student_id = ? and t.id = ? and t.kind = 'count' ${lock ? 'for update of t' : ''}`,
    [studentId, id],
  );
  const count = found[0];
  if (!count) throw new NotFound('No such count.');
  return count;
}

/** What a count said before each change, oldest first. */
export async function historyOfCount(db: Database, id: string): Promise<BehaviorCount[]> {
  return rowsOf(db, behaviorCountRow, `${query(revisedEntries)} order by t.version`, { id });
}

/** Counts as the computation sees them; a second observer’s are left out. */
export function watchedStretches(counts: readonly BehaviorCount[], { choices }: Naming): WatchedStretch[] {
  return counts
    .filter(({ besideId }) => besideId === null)
    .map(({ on, part, behaviorId, count, minutes }) => {
      return { on, part, behavior: choices.get(behaviorId)?.name ?? '?', count, minutes };
    });
}

/** Counts of a second observer, each with the first one’s of the same behavior and stretch. */
export function countPairs(counts: readonly BehaviorCount[]): { first: BehaviorCount; second: BehaviorCount }[] {
  const stretch = ({ behaviorId, on, time }: BehaviorCount) => `${behaviorId} ${on} ${time}`;
  return counts.flatMap((second) => {
    const first = counts.find(
      (count) => count.besideId === null && count.observerId === second.besideId && stretch(count) === stretch(second),
    );
    return first ? [{ first, second }] : [];
  });
}

/**
 * Records what was counted in one stretch of watching, each behavior by itself. Sent again, nothing changes.
 *
 * @throws NotFound; Invalid with messages by field
 */
export async function recordCounts(
  db: Database,
  actor: Actor,
  studentId: string,
  { counts, besideId }: CountsInput,
  moment: Moment,
): Promise<SessionFacts['student']> {
  return db.transaction(async (trx) => {
    let student: SessionFacts['student'] | undefined;
    for (const count of counts) {
      const asked = { studentId, right: 'observe', besideId } as const;
      const facts = await checkWhen(trx, actor, asked, count, moment);
      if (Object.keys(facts.messages).length > 0) throw new Invalid(facts.messages);
      await expectBehavior(trx, studentId, count.behaviorId);
      student = facts.student;
      const whose = { beside_id: besideId ?? null, recorded_by: actor.personId, recorded_at: moment.now };
      await insertOnce(trx, { id: count.id, student_id: studentId, kind: 'count', ...columnsOf(count), ...whose });
    }
    return defined(student);
  });
}

const columnsOf = (count: Omit<CountInput, 'id'>) => ({
  target_id: count.behaviorId,
  observed_on: count.on,
  observed_time: count.time,
  part: count.part || null,
  minutes: count.minutes,
  count: count.count,
  seconds: count.seconds,
  note: count.note,
  observer_id: count.observerId,
});

async function expectBehavior(db: Database, studentId: string, id: string): Promise<void> {
  const known = await db('behavior_targets').where({ id, student_id: studentId }).first('id');
  if (!known) throw new NotFound('No such behavior.');
}

interface CountIds {
  studentId: string;
  tallyId: string;
}

/** Replaces what a count says; its history is kept, with the reason. */
export function correctCount(
  db: Database,
  actor: Actor,
  ids: CountIds,
  { version, why, ...input }: CountCorrection,
  moment: Moment,
): Promise<BehaviorCount> {
  return changeCount(db, actor, ids, { version, why, now: moment.now }, async (trx) => {
    const asked = { studentId: ids.studentId, right: 'see' } as const;
    const { messages } = await checkWhen(trx, actor, asked, input, moment);
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    await expectBehavior(trx, ids.studentId, input.behaviorId);
    return columnsOf(input);
  });
}

/** Takes a count out of every figure; it stays readable on its own page, with the reason. */
export function withdrawCount(db: Database, actor: Actor, ids: CountIds, input: WithdrawalInput, now: Date) {
  return changeCount(db, actor, ids, { ...input, now }, async () => ({ withdrawn: true }));
}

function changeCount(
  db: Database,
  actor: Actor,
  { studentId, tallyId }: CountIds,
  change: { version: number; why: string; now: Date },
  changesTo: (trx: Database) => Promise<Record<string, unknown>>,
): Promise<BehaviorCount> {
  return changeRecord<BehaviorCount>(db, actor, {
    ...change,
    studentId,
    id: tallyId,
    read: (trx, access, options) => countOf(trx, access, tallyId, options),
    changesTo: (_, trx) => changesTo(trx),
  });
}
