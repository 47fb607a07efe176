import { v5 as nameId } from 'uuid';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { WallTime } from '~/core/calendar/zone';
import { dueAfter } from '~/core/rules/follow-up';
import type { DecisionInput } from '~/core/sharing/comment';
import type { Database } from '../platform/db/database';
import { Conflict, NotFound } from '../platform/failures';
import { changeFollowUp } from '../rules/follow-ups';
import { type Actor, schoolOfStudent } from '../school/school';
import { caseManager, requireStudent } from '../students/students';

/** Each request has one follow-up, and the same one when it is sent twice. */
const FOLLOW_UPS = 'b7b8f0a4-3c0f-4c3e-8a53-6a0c2f7f9d11';

/**
 * Within how many school days a request is to be answered. 34 CFR 99.20 (b), from memory, says “within a reasonable time”: this is our own
 * measure of it.
 */
const ANSWERED_WITHIN = 10;

/** What a family asks to have amended is something to be done, by the case manager. */
export async function askForAnswer(
  db: Database,
  studentId: string,
  { id, entryId }: { id: string; entryId: string | null },
  { today, now }: { today: IsoDate; now: Date },
): Promise<void> {
  const manager = await caseManager(db, studentId, today);
  // A student whom nobody manages at the moment has nobody who could be told; the request stands where it was made.
  if (!manager) return;
  const school = await schoolOfStudent(db, studentId);
  await db('follow_ups').insert({
    ...{ id: nameId(id, FOLLOW_UPS), student_id: studentId, entry_id: entryId, comment_id: id },
    what: entryId ? 'Answer the family’s request to amend an entry' : 'Answer the family’s request to amend a report',
    ...{ for_person: manager.id, due_on: dueAfter(today, ANSWERED_WITHIN, school.calendar), made_at: now },
  });
}

/**
 * Answers what a family asked to have amended: it was amended, or it was refused and why. What there was to be done is done with it. Sent
 * twice it is decided once.
 *
 * @throws NotFound for someone who may not share, and for a request that is not there; Conflict where it was decided already
 */
export async function decideAmendment(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, answers, outcome, text }: DecisionInput,
  { wall, now }: { wall: WallTime; now: Date },
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'share');
    const asked = await trx('comments')
      .where({ id: answers, student_id: studentId, kind: 'amendment' })
      .forUpdate()
      .first('entry_id', 'report_id');
    if (!asked) throw new NotFound('No such request.');
    const decided = await trx('comments').where({ answers, kind: 'decision' }).first('id');
    if (decided?.id === id) return;
    if (decided) throw new Conflict({ decided: decided.id });
    await trx('comments').insert({
      ...{ id, student_id: studentId, entry_id: asked.entry_id, report_id: asked.report_id, kind: 'decision' as const },
      ...{ answers, outcome, text, person_id: actor.personId },
      ...{ said_on: wall.on, said_time: wall.time, said_at: now },
    });
    const open = await trx('follow_ups').where({ comment_id: answers, done_at: null }).first('id', 'version');
    const word = outcome === 'amended' ? 'Amended as asked.' : 'Refused, with the reason.';
    const done = { what: 'done' as const, version: open?.version ?? 0, word };
    if (open) await changeFollowUp(trx, actor, open.id, done, now);
  });
}
