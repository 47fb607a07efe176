import { z } from 'zod';
import type { WallTime } from '~/core/calendar/zone';
import {
  type Comment,
  type CommentInput,
  type CommentKind,
  canAnswer,
  commentKinds,
  type HidingInput,
  kindSaidBy,
  MOST_IN_THREAD,
  outcomes,
} from '~/core/sharing/comment';
import type { ReaderKind } from '~/core/sharing/reader-kind';
import { readerKinds } from '~/core/sharing/reader-kind';
import { mustStand } from '../entries/stands';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotAllowed, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';
import { askForAnswer } from './amendments';

/** Who says something: a member of the team, or a reader by their share link. */
export type Speaker = { kind: 'team'; personId: string } | { kind: Exclude<ReaderKind, 'team'>; linkId: string };

const speakerColumn = z.object({ name: z.string(), linkId: z.string() });
const commentRow = z.object({
  id: z.string(),
  entryId: z.string().nullable(),
  kind: z.enum(commentKinds),
  outcome: z.enum(outcomes).nullable(),
  answers: z.string().nullable(),
  by: z.object({ kind: z.enum(readerKinds), name: z.string(), linkId: z.string().nullable() }),
  to: speakerColumn.nullable(),
  on: z.string(),
  time: z.string(),
  text: z.string(),
  hidden: z.object({ by: z.string(), reason: z.string() }).nullable(),
}) satisfies z.ZodType<Comment>;

const commentColumns = `c.id, c.entry_id as "entryId", c.kind, c.outcome, c.answers, c.said_on as "on", c.said_time as "time", c.text,
            json_build_object('kind', coalesce(l.kind, 'team'), 'name', coalesce(p.short_name, l.reader_name), 'linkId', l.id) as by,
            case when a.link_id is not null then json_build_object('name', al.reader_name, 'linkId', a.link_id) end as "to",
            case when c.hidden_at is not null then json_build_object('by', h.short_name, 'reason', c.hidden_reason) end as hidden
       from comments c left join people p on p.id = c.person_id left join share_links l on l.id = c.link_id
            left join people h on h.id = c.hidden_by
            left join comments a on a.id = c.answers left join share_links al on al.id = a.link_id`;

/** What was said of an issued report, oldest first. Ask `commentsSeenBy` before showing it. */
export const commentsOfReport = (
  db: Database,
  studentId: StudentAccess<'read'>,
  reportId: string,
): Promise<Comment[]> =>
  rowsOf(
    db,
    commentRow,
    `select ${commentColumns} where c.student_id = :studentId and c.report_id = :reportId order by c.seq`,
    { studentId, reportId },
  );

/**
 * What was said of some entries of a student, oldest first; or, without ids, the reflections that stand for themselves.
 * Ask `commentsSeenBy` before showing them.
 */
export async function commentsOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  entryIds: readonly string[],
): Promise<Comment[]> {
  return rowsOf(
    db,
    commentRow,
    `select ${commentColumns}
      where c.student_id = :studentId and (c.entry_id = any(:entryIds) or c.id = any(:entryIds))
      order by c.seq`,
    { studentId, entryIds: [...entryIds] },
  );
}

interface SayingAround {
  wall: WallTime;
  now: Date;
  mayRead: (db: Database, entryId: string) => Promise<boolean>;
  openReport?: string | null;
}

/** What the law gives a family the right to say of their child’s record. */
const isContesting = (kind: CommentKind) => kind === 'statement' || kind === 'amendment';

/**
 * Adds an answer to an entry, or a reflection of the student. Sent twice it is said once.
 *
 * @param around.mayRead  whether this reader is shown the entry that they answer
 * @param around.openReport  the issued report that they have before them; null on every other page
 * @throws NotFound for an entry that is not there for this reader; NotAllowed for readers who only read; Invalid for a full thread
 */
export async function sayComment(
  db: Database,
  studentId: string,
  speaker: Speaker,
  input: CommentInput,
  { wall, now, mayRead, openReport = null }: SayingAround,
): Promise<void> {
  if (!canAnswer(speaker.kind)) throw new NotAllowed('This link is for reading only.');
  const { id, entryId, reportId = null, text } = input;
  const kind = kindSaidBy(speaker.kind, input.kind);
  if (entryId === null && reportId === null && speaker.kind !== 'student') throw new NotFound('No such entry.');
  if (reportId !== null && (reportId !== openReport || entryId !== null || !isContesting(kind))) {
    throw new NotFound('No such report.');
  }
  await db.transaction(async (trx) => {
    // Nothing is added to the record of who has left.
    if (await trx('students').where({ id: studentId }).whereNotNull('archived_at').first('id'))
      throw new NotFound('No such student.');
    if (entryId !== null) {
      await mustStand(trx, studentId, entryId);
      if (!(await mayRead(trx, entryId))) throw new NotFound('No such entry.');
    }
    // A full thread still takes what the law gives a family the right to say.
    if (entryId !== null && !isContesting(kind)) await mustHaveRoom(trx, entryId, id);
    const by = speaker.kind === 'team' ? { person_id: speaker.personId } : { link_id: speaker.linkId };
    const answers = speaker.kind === 'team' ? await answeredBy(trx, input) : null;
    const written = await trx('comments')
      .insert({
        ...{ id, student_id: studentId, entry_id: entryId, report_id: reportId, kind, ...by, text, answers },
        ...{ said_on: wall.on, said_time: wall.time, said_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (written.length > 0) {
      if (kind === 'amendment') await askForAnswer(trx, studentId, { id, entryId }, { today: wall.on, now });
      return;
    }
    const said = await trx('comments')
      .where({ id, student_id: studentId, text, ...by })
      .first('id');
    if (!said) throw new NotFound('No such comment.');
  });
}

async function mustHaveRoom(db: Database, entryId: string, id: string): Promise<void> {
  const [row] = await db('comments')
    .where({ entry_id: entryId, hidden_at: null })
    .whereNot({ id })
    .select<{ n: string }[]>(db.raw('count(*) as n'));
  if (Number(row?.n) >= MOST_IN_THREAD) {
    throw new Invalid({ text: `There are ${MOST_IN_THREAD} answers already. What needs more needs a conversation.` });
  }
}

/**
 * Which comment of a reader from outside something of the team is an answer to; null where it is for everyone.
 *
 * @throws Invalid for a comment that is not there
 */
async function answeredBy(db: Database, { entryId, answers }: CommentInput): Promise<string | null> {
  if (answers === 'everyone') return null;
  const newest = await db('comments')
    .where({ entry_id: entryId, hidden_at: null })
    .whereNotNull('link_id')
    .modify((query) => answers && query.where({ id: answers }))
    .orderBy('seq', 'desc')
    .first('id');
  if (answers && !newest) throw new Invalid({ answers: 'Choose whom you answer.' });
  return newest?.id ?? null;
}

/**
 * Takes a comment out of the readers’ sight; the team still sees it, with the reason. Hiding twice changes nothing.
 *
 * @throws NotFound for someone who may not share
 */
export async function hideComment(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, reason }: HidingInput,
  now: Date,
): Promise<void> {
  await requireStudent(db, actor, studentId, 'share');
  // What the law gives a family the right to say stays in sight.
  const comment = await db('comments')
    .where({ id, student_id: studentId })
    .whereIn('kind', ['comment', 'reflection'])
    .first('id');
  if (!comment) throw new NotFound('No such comment.');
  await db('comments')
    .where({ id })
    .whereNull('hidden_at')
    .update({ hidden_by: actor.personId, hidden_at: now, hidden_reason: reason });
}

/** Brings a hidden comment back to its readers. */
export async function showComment(db: Database, actor: Actor, studentId: string, id: string): Promise<void> {
  await requireStudent(db, actor, studentId, 'share');
  const changed = await db('comments')
    .where({ id, student_id: studentId })
    .update({ hidden_by: null, hidden_at: null, hidden_reason: null });
  if (changed === 0) throw new NotFound('No such comment.');
}
