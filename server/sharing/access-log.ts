import { LRUCache } from 'lru-cache';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';

/** Who read: a member of the team, or whoever came by a share link. */
export type ReadBy = { personId: string } | { linkId: string };

/** Looked at, taken away as a file, sent in a message, frozen for its readers, or kept by a device for when there is no network. */
const readHows = ['opened', 'exported', 'sent', 'issued', 'kept'] as const;
export type ReadHow = (typeof readHows)[number];

/** For a reader from outside, looking at the same thing again within this time is one reading: a page that is redrawn was not opened again. */
const SAME_READING = '10 minutes';

/**
 * Writes down that something of a student was opened, exported or sent: 34 CFR 99.32 asks for a record of disclosures.
 * Only an opening may be the same one as before: a member’s of the same day, a reader’s from outside within a few minutes.
 */
export async function recordAccess(
  db: Database,
  by: ReadBy,
  reading: { studentId: string; what: string; how: ReadHow },
  now: Date,
): Promise<void> {
  const [column, id] = 'personId' in by ? ['person_id', by.personId] : ['link_id', by.linkId];
  await db.raw(
    `insert into access_log (student_id, ${column}, what, how, at, day)
     select :studentId, :id, :what, :how, :now, cast(cast(:now as timestamptz) at time zone c.time_zone as date)
       from students s join schools c on c.id = s.school_id
      where s.id = :studentId and (:how <> 'opened' or not exists (
        select from access_log where student_id = :studentId and ${column} = :id and what = :what and how = :how
           and at > cast(:now as timestamptz) - interval '${SAME_READING}'))
     on conflict do nothing`,
    { ...reading, id, now },
  );
}

/** Whose pages were opened by whom on which day, as far as this process has written it down: asked at every page, written once. */
const opened = new LRUCache<string, true>({ max: 20_000 });

/** How pages leave us: somebody opens them, or their device fetches them for when there is no network. */
export type PagesHow = Extract<ReadHow, 'opened' | 'kept'>;

const openedKey = ({ personId, today }: Actor, studentId: string, how: PagesHow) =>
  `${personId} ${studentId} ${today} ${how}`;

/** Whether this process knows already that who asks has opened the student’s pages today, or their device has kept them. */
export const isRecorded = (actor: Actor, studentId: string, how: PagesHow) =>
  opened.has(openedKey(actor, studentId, how));

/** Writes down that a member of the team or an administrator has opened a student’s pages, once a day. */
export async function recordPages(
  db: Database,
  actor: Actor,
  { studentId, how }: { studentId: string; how: PagesHow },
  now: Date,
): Promise<void> {
  const { personId } = actor;
  await recordAccess(db, { personId }, { studentId, what: 'the student’s pages', how }, now);
  opened.set(openedKey(actor, studentId, how), true);
}

const accessLogEntryRow = z.object({
  at: z.date(),
  /** Who it was, and how they came in. */
  who: z.string(),
  /** Null for a member of the team; else the reader’s kind. */
  kind: z.string().nullable(),
  /** What a reader from outside needs it for. */
  purpose: z.string().nullable(),
  what: z.string(),
  how: z.enum(readHows),
});
export type AccessLogEntry = z.infer<typeof accessLogEntryRow>;

/** The access log of a student, newest first. For those who may share. */
export async function accessLogOf(
  db: Database,
  actor: Actor,
  studentId: string,
  { limit }: { limit?: number } = {},
): Promise<AccessLogEntry[]> {
  await requireStudent(db, actor, studentId, 'share');
  return rowsOf(
    db,
    accessLogEntryRow,
    `select r.at, coalesce(p.name, l.reader_name) as who, l.kind, l.purpose, r.what, r.how
       from access_log r left join people p on p.id = r.person_id left join share_links l on l.id = r.link_id
      where r.student_id = :studentId order by r.at desc, r.id desc ${limit ? 'limit :limit' : ''}`,
    { studentId, limit: limit ?? 0 },
  );
}

/** When a reader from outside last opened a report before a day; null where they never did. */
export async function lastReadBefore(db: Database, linkId: string, day: IsoDate): Promise<Date | null> {
  const row = await db('access_log')
    .where({ link_id: linkId, how: 'opened', what: 'report' })
    .where('day', '<', day)
    .orderBy('at', 'desc')
    .first('at');
  return row?.at ?? null;
}
