import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import type { Evidence } from '~/core/entries/evidence';
import { inOrder, type ReportEntry } from '~/core/individual-report/report';
import { type Comment, commentsSeenBy } from '~/core/sharing/comment';
import type { ReaderKind } from '~/core/sharing/reader-kind';
import { everything, type Shows } from '~/core/sharing/visibility-rule';
import { evidenceOf } from '../entries/evidence/list';
import type { Goal } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { commentsOf } from '../sharing/comments';
import { withoutOtherChildren } from '../sharing/other-children';
import type { StudentAccess } from '../students/access';
import { behaviorEntries, noteEntries, reportEntries } from './entries-said';

/** Entries on one page of the report. */
export const PAGE_SIZE = 40;

/** Who reads, and what they are shown. */
export interface Reader {
  kind: ReaderKind;
  /** The share link by which they read; null for the team. */
  linkId: string | null;
  shows: Shows;
  discreet: boolean;
}

export interface ReportWanted {
  /** One goal, or behavior alone. */
  only: { goalId: string } | 'behavior' | null;
  find: string;
  /** Counted from 1; what lies beyond the last is the last. Or all on one. */
  page: number | 'all';
  /** The page that holds this day, in place of a number. */
  day: IsoDate | null;
  /** Only what was seen in this stretch, both ends with it; from the beginning and to the end where it is not said. */
  from?: IsoDate | null;
  to?: IsoDate | null;
  oldestFirst: boolean;
}

export interface IndividualReport {
  entries: ReportEntry[];
  /** What was said of them, by the entry’s id; a reflection that stands for itself under its own. */
  threads: Record<string, Comment[]>;
  /** Photographs and files, by the entry’s id; none for readers who are not shown them. */
  evidence: Record<string, Evidence[]>;
  page: number;
  pages: number;
  total: number;
}

interface Listed {
  id: string;
  on: IsoDate;
}

/**
 * One page of a student’s individual report as its reader may see it: observations of every kind, ABC notes, counts, and
 * reflections, with what was said of each.
 *
 * @param goals  the student’s, all of them
 */
export async function individualReport(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  reader: Reader,
  wanted: ReportWanted,
): Promise<IndividualReport> {
  const { ids, page, pages, total } = await pageOfReport(db, studentId, goals, reader, wanted);
  const [entries, comments, evidence] = await Promise.all([
    entriesAsSeen(db, studentId, goals, reader, ids, wanted.oldestFirst),
    commentsOf(db, studentId, ids),
    evidenceAsSeen(db, studentId, reader, ids),
  ]);
  const threads = await threadsOf(db, studentId, reader, comments);
  return { entries, threads, evidence, page, pages, total };
}

interface PageOfReport {
  ids: string[];
  page: number;
  pages: number;
  total: number;
}

/** Which entries stand on the page that is wanted. A plain page is read alone; to look for a word or a day takes the whole list. */
async function pageOfReport(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  reader: Reader,
  wanted: ReportWanted,
): Promise<PageOfReport> {
  const words = wanted.find.trim().toLocaleLowerCase();
  if (words === '' && wanted.day === null && wanted.page !== 'all') {
    const total = await countEntries(db, studentId, reader, wanted);
    const pages = Math.max(1, Math.ceil(total / PAGE_SIZE));
    const page = Math.min(pages, wanted.page);
    const slice = { limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE };
    const listed = await listEntries(db, studentId, reader, wanted, slice);
    return { ids: listed.map(({ id }) => id), page, pages, total };
  }
  const found = words === '' ? null : await entriesSaying(db, studentId, goals, reader, words);
  const listed = (await listEntries(db, studentId, reader, wanted)).filter(({ id }) => found?.has(id) ?? true);
  const size = wanted.page === 'all' ? Math.max(1, listed.length) : PAGE_SIZE;
  const pages = Math.max(1, Math.ceil(listed.length / size));
  const asked = wanted.day ? pageOfDay(listed, wanted, size) : wanted.page;
  const page = asked === 'all' ? 1 : Math.min(pages, asked);
  const ids = listed.slice((page - 1) * size, page * size).map(({ id }) => id);
  return { ids, page, pages, total: listed.length };
}

function pageOfDay(listed: readonly Listed[], { day, oldestFirst }: ReportWanted, size: number): number {
  const isThere = ({ on }: Listed) => (oldestFirst ? on >= defined(day) : on <= defined(day));
  const at = listed.findIndex(isThere);
  return 1 + Math.floor((at < 0 ? Math.max(0, listed.length - 1) : at) / size);
}

/** A report that is narrowed to nothing, on one page. */
const WHOLE = { only: null, find: '', page: 'all', day: null, oldestFirst: false } satisfies ReportWanted;

/** How many entries a report holds that is narrowed to nothing but a stretch of days. */
export const reportSize = (
  db: Database,
  studentId: StudentAccess<'read'>,
  reader: Reader,
  { from, to }: Pick<ReportWanted, 'from' | 'to'>,
): Promise<number> => countEntries(db, studentId, reader, { ...WHOLE, from, to });

interface Slice {
  limit: number;
  offset: number;
}

/** Goals, incidents, counts and notes. */
const MOST_KINDS = 4;

/** The parts of which a report’s list is made, as SQL: what stands of a student that this reader may see. */
function partsOf({ shows, kind }: Reader, { only, from, to }: ReportWanted): string[] {
  const within = (day: string) => `${from ? `and ${day} >= :from` : ''} ${to ? `and ${day} <= :to` : ''}`;
  const isOneGoal = only !== null && only !== 'behavior';
  const seesBehavior = shows.has('abc') && !isOneGoal;
  // What has not ended yet is for those who work with it.
  const ended = seesBehavior && shows !== everything ? 'and not is_going' : '';
  const kinds = [
    ...(only === 'behavior' ? [] : ['goal']),
    ...(seesBehavior ? ['incident', 'count'] : []),
    ...(shows.has('forms') && only === null ? ['note'] : []),
  ];
  const ofKinds = kinds.length === MOST_KINDS ? '' : `and kind in (${kinds.map((one) => `'${one}'`).join(', ')})`;
  const recorded = `select id, observed_on as "on", observed_time as "time", recorded_at as written from entries
      where student_id = :studentId and not withdrawn ${ofKinds} ${ended} ${isOneGoal ? 'and goal_id = :goalId' : ''} ${within('observed_on')}`;
  // A reflection is the student’s own: the team and the family read it too.
  const reflections = `select id, said_on as "on", said_time as "time", said_at as written from comments
      where student_id = :studentId and entry_id is null and report_id is null and (${kind === 'team' ? 'true' : 'hidden_at is null'})
            and (${kind === 'team' || kind === 'family' ? 'true' : 'link_id = :linkId'}) ${within('said_on')}`;
  return [...(only === 'behavior' && !seesBehavior ? [] : [recorded]), ...(only === null ? [reflections] : [])];
}

const valuesOf = (studentId: StudentAccess<'read'>, { linkId }: Reader, { only, from, to }: ReportWanted) => ({
  ...{ studentId, from: from ?? '', to: to ?? '' },
  goalId: only !== null && only !== 'behavior' ? only.goalId : '',
  linkId: linkId ?? studentId,
});

async function countEntries(
  db: Database,
  studentId: StudentAccess<'read'>,
  reader: Reader,
  wanted: ReportWanted,
): Promise<number> {
  const parts = partsOf(reader, wanted);
  if (parts.length === 0) return 0;
  const counts = parts.map((part) => `(select count(*) from (${part}) as part)`).join(' + ');
  const values = valuesOf(studentId, reader, wanted);
  const found = await rowsOf(db, z.object({ n: z.number() }), `select (${counts})::int as n`, values);
  return found[0]?.n ?? 0;
}

/** What stands of a student in its order, by id and day only: all, or a slice of it. */
async function listEntries(
  db: Database,
  studentId: StudentAccess<'read'>,
  reader: Reader,
  wanted: ReportWanted,
  slice?: Slice,
): Promise<Listed[]> {
  const parts = partsOf(reader, wanted);
  if (parts.length === 0) return [];
  const order = wanted.oldestFirst ? '' : 'desc';
  const ordered = `order by 2 ${order}, 3 ${order}, 4 ${order}`;
  // Each part gives no more than the slice can hold: they come out of their indexes in order.
  const most = slice ? `limit ${slice.offset + slice.limit}` : '';
  const all = parts.map((part) => `(${part} ${ordered} ${most})`).join(' union all ');
  const result = await rowsOf(
    db,
    z.tuple([z.string(), z.string()]),
    `select id, "on" from (select * from (${all}) as entries ${ordered}) as listed
        ${slice ? `limit ${slice.limit} offset ${slice.offset}` : ''}`,
    valuesOf(studentId, reader, wanted),
  );
  return result.map(([id, on]) => ({ id, on }));
}

/** Entries in full, of these ids or all, as the reader may see them. */
export async function entriesAsSeen(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  { kind, shows, discreet }: Omit<Reader, 'linkId'>,
  ids?: readonly string[],
  oldestFirst = false,
): Promise<ReportEntry[]> {
  const lists = await Promise.all([
    reportEntries(db, goals, { ids, shows }),
    behaviorEntries(db, [studentId], { ids, shows, discreet }),
    noteEntries(db, [studentId], { ids, shows, discreet }),
    reflectionEntries(db, studentId, ids),
  ]);
  const entries = inOrder(lists, { oldestFirst });
  return kind === 'team' ? entries : withoutOtherChildren(db, studentId, entries);
}

/** The student’s reflections that stand for themselves, as entries; what they say is in their thread. */
async function reflectionEntries(
  db: Database,
  studentId: StudentAccess<'read'>,
  ids?: readonly string[],
): Promise<ReportEntry[]> {
  const rows: { id: string; said_on: IsoDate; said_time: string }[] = await db('comments')
    .where({ student_id: studentId, entry_id: null, report_id: null })
    .modify((query) => ids && query.whereRaw('id = any(?)', [[...ids]]))
    .select('id', 'said_on', 'said_time');
  return rows.map((row) => ({
    ...{ id: row.id, studentId, kind: 'reflection', title: 'A reflection', goalId: null, goalVersion: 1 },
    ...{
      on: row.said_on,
      time: row.said_time,
      location: null,
      observer: null,
      note: null,
      sentence: '',
      outcome: null,
    },
    ...{ version: 1, isCorrected: false, isSecond: false },
  }));
}

/** The ids of the entries in which the words stand, in what this reader is shown of them. */
async function entriesSaying(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  reader: Reader,
  words: string,
): Promise<Set<string>> {
  const entries = await entriesAsSeen(db, studentId, goals, reader);
  const ids = entries.map(({ id }) => id);
  const threads = await threadsOf(db, studentId, reader, await commentsOf(db, studentId, ids));
  const textOf = (entry: ReportEntry) =>
    [
      entry.title,
      entry.sentence,
      entry.note,
      entry.observer,
      entry.location,
      ...(threads[entry.id] ?? []).map(({ text }) => text),
    ]
      .join(' ')
      .toLocaleLowerCase();
  return new Set(entries.filter((entry) => textOf(entry).includes(words)).map(({ id }) => id));
}

async function threadsOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  reader: Reader,
  comments: readonly Comment[],
): Promise<Record<string, Comment[]>> {
  const seen = commentsSeenBy(comments, { ...reader, namesAdults: reader.shows.has('observer') });
  const asNotes = seen.map((comment) => ({ ...comment, note: comment.text, version: 0 }));
  const shown = reader.kind === 'team' ? asNotes : await withoutOtherChildren(db, studentId, asNotes);
  const threads: Record<string, Comment[]> = {};
  for (const { note, version: _, ...comment } of shown) {
    const key = comment.entryId ?? comment.id;
    threads[key] = [...(threads[key] ?? []), { ...comment, text: note }];
  }
  return threads;
}

/** Photographs and files, for readers who are shown them; a file’s name may name another child too. */
async function evidenceAsSeen(
  db: Database,
  studentId: StudentAccess<'read'>,
  { kind, shows, discreet }: Reader,
  ids: readonly string[],
): Promise<Record<string, Evidence[]>> {
  if (!shows.has('pictures') || discreet) return {};
  const all = await evidenceOf(db, studentId, ids);
  if (kind === 'team') return all;
  const named = Object.values(all)
    .flat()
    .map((one) => ({ ...one, note: one.name, version: 0 }));
  const names = new Map((await withoutOtherChildren(db, studentId, named)).map(({ id, note }) => [id, note]));
  const renamed = (list: Evidence[]) => list.map((one) => ({ ...one, name: names.get(one.id) ?? one.name }));
  return Object.fromEntries(Object.entries(all).map(([entryId, list]) => [entryId, renamed(list)]));
}

/** Whether a reader is shown this entry at all: whether it stands in their report, with something in it that they are shown. */
export async function canReadEntry(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  reader: Reader,
  entryId: string,
): Promise<boolean> {
  const listed = `select id from (${partsOf(reader, WHOLE).join(' union all ')}) as listed where id = :entryId`;
  const values = { ...valuesOf(studentId, reader, WHOLE), entryId };
  const found = await rowsOf(db, z.object({ id: z.string() }), listed, values);
  return found.length > 0 && (await entriesAsSeen(db, studentId, goals, reader, [entryId])).length > 0;
}

/** So many of what is new are listed; how many there are is said. */
const NEWEST_LISTED = 8;
/** More than these are not looked at: a reader who comes back after months is told that there are more. */
const MOST_NEW = 300;

/** What was recorded since a moment, as its reader may see it, the newest first: how many entries of those that
 * were looked at, whether there are more, and the newest of them. */
export async function recordedSince(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  reader: Reader,
  since: Date,
): Promise<{ total: number; isMore: boolean; entries: ReportEntry[] }> {
  const ids = await db('entries')
    .where({ student_id: studentId, withdrawn: false })
    .where('recorded_at', '>', since)
    .orderBy('recorded_at', 'desc')
    .limit(MOST_NEW)
    .pluck('id');
  if (ids.length === 0) return { total: 0, isMore: false, entries: [] };
  const entries = await entriesAsSeen(db, studentId, goals, reader, ids);
  return { total: entries.length, isMore: ids.length === MOST_NEW, entries: entries.slice(0, NEWEST_LISTED) };
}
