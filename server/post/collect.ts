import { v5 as nameId } from 'uuid';
import { mondayOf, weekday } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import type { ToldWhen } from '~/core/post/message';
import type { Database } from '../db/database';

/** Digests leave after the school day; weekly ones on Friday. */
const DIGEST_AT = '16:00';
const FRIDAY = 5;

/** Rows of one statement. */
const CHUNK = 500;
/** An entry whose transaction ended a little late is still found. */
const LATE = 5 * 60_000;

/** Ids of messages follow from what they are about: whoever makes one a second time makes the same. */
const MESSAGES = '3a6b1d2e-7c55-4c0b-9b0e-5d1f0b6f6a11';
export const messageId = (key: string): string => nameId(key, MESSAGES);

/** A reader who is told of a student’s entries. */
interface Told {
  studentId: string;
  linkId: string | null;
  personId: string | null;
  name: string;
  email: string;
  told: ToldWhen;
}

async function readersTold(db: Database, today: string): Promise<Told[]> {
  const found = await db.raw<{ rows: Told[] }>(
    `select l.student_id as "studentId", l.id as "linkId", null as "personId", l.reader_name as name, l.email, l.told
       from share_links l join students s on s.id = l.student_id
      where l.told <> 'byHand' and l.withdrawn_at is null and l.ends_on >= :today and s.archived_at is null
     union all
     select m.student_id, null, p.id, p.name, p.email, m.told
       from team_members m join people p on p.id = m.person_id join students s on s.id = m.student_id
      where m.told <> 'byHand' and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
            and s.archived_at is null`,
    { today },
  );
  return found.rows;
}

interface MessageRow {
  id: string;
  [column: string]: unknown;
}

const messageFor = (
  reader: Told,
  about: { key: string; kind: 'entry' | 'digest'; entryIds: string[] },
  now: Date,
): MessageRow => ({
  id: messageId(about.key),
  ...{
    key: about.key,
    kind: about.kind,
    student_id: reader.studentId,
    link_id: reader.linkId,
    person_id: reader.personId,
  },
  ...{ to_name: reader.name, to_email: reader.email, entry_ids: about.entryIds },
  ...{ state: 'waiting', not_before: now, made_at: now },
});

/**
 * Makes the messages that are due: for each new entry, those for readers who are told at each; after school the digests. Nothing
 * is made twice, however often and by however many this is called.
 *
 * @returns how many were made
 */
export async function collectPost(db: Database, timeZone: string, now: Date): Promise<number> {
  return db.transaction(async (trx) => {
    const events = await trx('entry_events')
      .where({ is_collected: false })
      .orderBy('seq')
      .limit(5000)
      .forUpdate()
      .skipLocked();
    const wall = wallTime(now, timeZone);
    const readers = await readersTold(trx, wall.on);
    const at = readers.filter(({ told }) => told === 'entry');
    const rows = events.flatMap((event) =>
      at
        .filter(({ studentId }) => studentId === event.student_id)
        .map((reader) => {
          const key = `entry:${event.entry_id}:${reader.linkId ?? reader.personId}`;
          return messageFor(reader, { key, kind: 'entry', entryIds: [event.entry_id] }, now);
        }),
    );
    if (wall.time >= DIGEST_AT) {
      const period = weekday(wall.on) >= FRIDAY ? [wall.on, `week of ${mondayOf(wall.on)}`] : [wall.on, null];
      for (const reader of readers.filter(({ told }) => told === 'daily' || told === 'weekly')) {
        const name = reader.told === 'daily' ? period[0] : period[1];
        if (name) rows.push(...(await digestFor(trx, reader, name, now)));
      }
    }
    const collected = events.map(({ seq }) => seq);
    if (collected.length > 0) await trx('entry_events').whereIn('seq', collected).update({ is_collected: true });
    let made = 0;
    for (let from = 0; from < rows.length; from += CHUNK) {
      const chunk = rows.slice(from, from + CHUNK);
      made += (await trx('messages').insert(chunk).onConflict('key').ignore().returning('id')).length;
    }
    return made;
  });
}

/** The entries since this reader’s last digest; none when there is nothing new, or it was made already. */
async function digestFor(db: Database, reader: Told, period: string, now: Date): Promise<MessageRow[]> {
  const who = reader.linkId ? { link_id: reader.linkId } : { person_id: reader.personId, student_id: reader.studentId };
  const key = `digest:${period}:${reader.linkId ?? `${reader.personId}:${reader.studentId}`}`;
  if (await db('messages').where({ key }).first('id')) return [];
  const before = await db('messages')
    .where({ kind: 'digest', ...who })
    .orderBy('seq', 'desc')
    .first('made_at');
  // The first one tells of today, or of this week.
  const usual = now.getTime() - (reader.told === 'daily' ? 1 : 7) * 24 * 3_600_000;
  const since = new Date(before ? before.made_at.getTime() - LATE : usual);
  const told = new Set<string>(before?.entry_ids ?? []);
  const events = await db('entry_events')
    .where({ student_id: reader.studentId })
    .where('made_at', '>', since)
    .where('made_at', '<=', now)
    .orderBy('seq')
    .select('entry_id');
  const entryIds = events.map((event) => event.entry_id as string).filter((id) => !told.has(id));
  return entryIds.length === 0 ? [] : [messageFor(reader, { key, kind: 'digest', entryIds }, now)];
}
