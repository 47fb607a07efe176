import { z } from 'zod';
import { addDays, mondayOf, weekday } from '~/core/calendar/iso-date';
import { instantAt, type WallTime, wallTime } from '~/core/calendar/zone';
import { frequencies } from '~/core/sharing/share-link';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { NewRow } from '../platform/db/tables';
import { messageId } from '../platform/message-id';
import type { School } from '../school/school';

/** Digests leave after the school day; weekly ones on Friday. */
const DIGEST_AT = '16:00';
const FRIDAY = 5;
/** Before the day begins: what is to be done on it. */
const REMINDER_AT = '07:00';

/** Rows of one statement. */
const CHUNK = 500;
/** An entry whose transaction ended a little late is still found. */
const LATE = 5 * 60_000;
const DAY = 24 * 3_600_000;
/** Who was given it only now need not be reminded. */
const HALF_A_DAY = DAY / 2;

/** Whom a message goes to, and about whom. */
type To = Omit<Told, 'frequency'>;

/** A reader who is told of a student’s entries. */
const toldRow = z.object({
  studentId: z.string(),
  linkId: z.string().nullable(),
  personId: z.string().nullable(),
  name: z.string(),
  email: z.string(),
  frequency: z.enum(frequencies),
});
type Told = z.infer<typeof toldRow>;

async function readersToTell(db: Database, schoolId: string, today: string): Promise<Told[]> {
  return rowsOf(
    db,
    toldRow,
    `select l.student_id as "studentId", l.id as "linkId", null as "personId", l.reader_name as name, l.email, l.frequency
       from share_links l join students s on s.id = l.student_id
      where s.school_id = :schoolId and l.frequency <> 'byHand' and l.withdrawn_at is null and l.ends_on >= :today
            and s.archived_at is null
     union all
     select m.student_id, null, p.id, p.name, p.email, m.frequency
       from team_members m join people p on p.id = m.person_id join students s on s.id = m.student_id
      where s.school_id = :schoolId and m.frequency <> 'byHand' and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
            and s.archived_at is null`,
    { schoolId, today },
  );
}

/** A message to be made, and the entries that it tells of. */
interface NewMessage {
  row: NewRow<'messages'> & { id: string };
  entryIds: string[];
}

const messageFor = (
  reader: To,
  about: { key: string; kind: 'entry' | 'digest' | 'rule' | 'reminder'; entryIds: string[] },
  now: Date,
): NewMessage => ({
  entryIds: about.entryIds,
  row: {
    id: messageId(about.key),
    ...{
      key: about.key,
      kind: about.kind,
      student_id: reader.studentId,
      link_id: reader.linkId,
      person_id: reader.personId,
    },
    ...{ to_name: reader.name, to_email: reader.email },
    ...{ state: 'waiting' as const, not_before: now, made_at: now },
  },
});

/**
 * Makes the messages that are due: for each new entry, those for readers who are told at each; after school the digests. Nothing
 * is made twice, however often and by however many this is called.
 *
 * @returns how many were made
 */
export async function collectMessages(db: Database, { id: schoolId, timeZone }: School, now: Date): Promise<number> {
  return db.transaction(async (trx) => {
    const events = await trx('entry_events as e')
      .join('students as s', 's.id', 'e.student_id')
      .where({ 'e.is_collected': false, 's.school_id': schoolId })
      .orderBy('e.seq')
      .limit(5000)
      .select('e.seq', 'e.student_id', 'e.entry_id', 'e.made_at')
      .forUpdate('e')
      .skipLocked();
    const wall = wallTime(now, timeZone);
    const readers = await readersToTell(trx, schoolId, wall.on);
    const at = readers.filter(({ frequency }) => frequency === 'entry');
    const rows = sessionsOf(events).flatMap(({ studentId, entryIds }) =>
      at
        .filter((reader) => reader.studentId === studentId)
        .map((reader) => {
          const key = `entry:${entryIds[0]}:${reader.linkId ?? reader.personId}`;
          return messageFor(reader, { key, kind: 'entry', entryIds }, now);
        }),
    );
    rows.push(...(await digestsDue(trx, readers, wall, now)), ...(await ofRules(trx, schoolId, now)));
    rows.push(...(await reminders(trx, schoolId, wall, now)));
    const collected = events.map(({ seq }) => seq);
    if (collected.length > 0) await trx('entry_events').whereIn('seq', collected).update({ is_collected: true });
    let made = 0;
    for (let from = 0; from < rows.length; from += CHUNK) {
      const chunk = rows.slice(from, from + CHUNK);
      const written = await trx('messages')
        .insert(chunk.map(({ row }) => row))
        .onConflict('key')
        .ignore()
        .returning('id');
      const isNew = new Set(written.map(({ id }) => id));
      made += isNew.size;
      const told = chunk
        .filter(({ row }) => isNew.has(row.id))
        .flatMap(({ row, entryIds }) =>
          entryIds.map((entry_id, position) => ({
            message_id: row.id,
            student_id: row.student_id,
            entry_id,
            position,
          })),
        );
      if (told.length > 0) await trx.batchInsert('message_entries', told, CHUNK);
    }
    return made;
  });
}

interface EntryEvent {
  student_id: string;
  entry_id: string;
  made_at: Date;
}

/** What was saved in one go makes one message, however many goals it was about. */
function sessionsOf(events: readonly EntryEvent[]): { studentId: string; entryIds: string[] }[] {
  const sessions = new Map<string, { studentId: string; entryIds: string[] }>();
  for (const { student_id: studentId, entry_id, made_at } of events) {
    const key = `${studentId} ${made_at.getTime()}`;
    const session = sessions.get(key) ?? { studentId, entryIds: [] };
    session.entryIds.push(entry_id);
    sessions.set(key, session);
  }
  return [...sessions.values()];
}

/** The messages that follow from rules and are not made yet: one for each thing that fulfilled one. */
async function ofRules(db: Database, schoolId: string, now: Date): Promise<NewMessage[]> {
  const found = await rowsOf(
    db,
    toldRow.omit({ frequency: true }).extend({ id: z.string(), entryId: z.string().nullable() }),
    `select f.id, f.entry_id as "entryId", f.student_id as "studentId", null as "linkId", p.id as "personId", p.name, p.email
       from rule_firings f join students s on s.id = f.student_id join people p on p.id = f.tell
      where not f.is_told and s.school_id = :schoolId order by f.at limit :most for update of f skip locked`,
    { schoolId, most: 1000 },
  );
  if (found.length === 0) return [];
  await db('rule_firings')
    .whereIn(
      'id',
      found.map(({ id }) => id),
    )
    .update({ is_told: true });
  return found.map(({ id, entryId, ...to }) =>
    messageFor(to, { key: `rule:${id}`, kind: 'rule', entryIds: entryId ? [entryId] : [] }, now),
  );
}

/** Reminders of what is due today and still open, one each, however often it is looked. */
async function reminders(db: Database, schoolId: string, { on, time }: WallTime, now: Date): Promise<NewMessage[]> {
  if (time < REMINDER_AT) return [];
  const found = await rowsOf(
    db,
    toldRow.omit({ frequency: true }).extend({ key: z.string() }),
    `select 'reminder:' || f.id || ':' || f.due_on as key, f.student_id as "studentId", null as "linkId",
            p.id as "personId", p.name, p.email
       from follow_ups f join students s on s.id = f.student_id join people p on p.id = f.for_person
      where f.done_at is null and f.due_on = :on and s.school_id = :schoolId and s.archived_at is null
            and f.made_at < :dayBegan and not exists (select from messages m where m.key = 'reminder:' || f.id || ':' || f.due_on)`,
    { on, schoolId, dayBegan: new Date(now.getTime() - HALF_A_DAY) },
  );
  return found.map(({ key, ...to }) => messageFor(to, { key, kind: 'reminder', entryIds: [] }, now));
}

/** Which digest a reader is to have by now; null when none. */
function digestKey(reader: Told, { on, time }: WallTime): string | null {
  if (time < DIGEST_AT || (reader.frequency !== 'daily' && reader.frequency !== 'weekly')) return null;
  if (reader.frequency === 'weekly' && weekday(on) < FRIDAY) return null;
  const period = reader.frequency === 'daily' ? on : `week of ${mondayOf(on)}`;
  return `digest:${period}:${reader.linkId ?? `${reader.personId}:${reader.studentId}`}`;
}

/**
 * The digests that are due and not made yet, each with the entries since its reader’s last one; none where nothing is new. Asked
 * for all readers at once: which are made, what each last one told, and what is new of their students.
 */
async function digestsDue(db: Database, readers: readonly Told[], wall: WallTime, now: Date): Promise<NewMessage[]> {
  const keyed = readers.flatMap((reader) => {
    const key = digestKey(reader, wall);
    return key === null ? [] : [{ reader, key }];
  });
  if (keyed.length === 0) return [];
  const made = await db('messages')
    .whereIn(
      'key',
      keyed.map(({ key }) => key),
    )
    .select('key');
  // Asked for by key: none comes without.
  const isMade = new Set(made.map(({ key }) => key as string));
  const due = keyed.filter(({ key }) => !isMade.has(key));
  if (due.length === 0) return [];

  const ids = due.map(({ reader }) => ({
    s: reader.studentId,
    l: reader.linkId,
    p: reader.personId,
    // The first one tells of today, or of this week.
    usual: new Date(now.getTime() - (reader.frequency === 'daily' ? 1 : 7) * DAY),
  }));
  const found = await rowsOf(
    db,
    z.object({ at: z.number(), entryIds: z.array(z.string()) }),
    `select cast(d.at as int) - 1 as at, array_agg(e.entry_id order by e.seq) as "entryIds"
       from jsonb_array_elements(cast(:ids as jsonb)) with ordinality as d (who, at)
            left join lateral (
              select m.id, m.made_at from messages m
               where m.kind = 'digest' and m.student_id = cast(d.who ->> 's' as uuid)
                     and m.link_id is not distinct from cast(d.who ->> 'l' as uuid)
                     and m.person_id is not distinct from cast(d.who ->> 'p' as uuid)
               order by m.seq desc limit 1) as before on true
            join entry_events e on e.student_id = cast(d.who ->> 's' as uuid)
             and e.made_at > coalesce(before.made_at - interval '${LATE / 60_000} minutes', cast(d.who ->> 'usual' as timestamptz))
             and e.made_at <= :now and not exists (
               select from message_entries t where t.message_id = before.id and t.entry_id = e.entry_id)
      group by d.at`,
    { ids: JSON.stringify(ids), now },
  );
  return found.flatMap(({ at, entryIds }) => {
    const one = due[at];
    return one ? [messageFor(one.reader, { key: one.key, kind: 'digest', entryIds }, now)] : [];
  });
}

/** When digests leave next, at the latest. */
export async function nextDigestAt(db: Database, { id: schoolId, timeZone }: School, now: Date): Promise<Date | null> {
  const { on, time } = wallTime(now, timeZone);
  const readers = await readersToTell(db, schoolId, on);
  if (!readers.some(({ frequency }) => frequency === 'daily' || frequency === 'weekly')) return null;
  return instantAt({ on: time < DIGEST_AT ? on : addDays(on, 1), time: DIGEST_AT }, timeZone);
}
