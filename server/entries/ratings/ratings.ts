import type { IsoDate } from '~/core/calendar/iso-date';
import type { WallTime } from '~/core/calendar/zone';
import {
  asEntry,
  RATING_LINK_HOURS,
  type RaterKind,
  type Rating,
  type RatingInput,
  type RatingLinkInput,
  type WorkSampleInput,
} from '~/core/entries/ratings/ratings';
import type { RubricDefinition } from '~/core/measures/rubric/rubric';
import { goalOf, measureAt } from '../../goals/goals';
import { hashToken, newToken } from '../../people/tokens';
import type { Database } from '../../platform/db/database';
import { Conflict, Invalid, NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import type { StudentAccess } from '../../students/access';
import { can } from '../../students/rights';
import { requireStudent, type Student } from '../../students/students';
import { recordSession } from '../record';

/** One work sample that several people rate by a goal’s rubric. */
export interface WorkSample {
  id: string;
  goalId: string;
  title: string;
  madeOn: IsoDate;
  entryId: string | null;
  rubric: RubricDefinition;
  ratings: Rating[];
  /** Those who were asked by a link and have not answered. */
  asked: { id: string; kind: 'peer' | 'student'; label: string; isOver: boolean }[];
}

/** @throws NotFound for a goal that has no rubric */
export async function rubricOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  goalId: string,
  version?: number,
): Promise<RubricDefinition> {
  const goal = await goalOf(db, studentId, goalId);
  const measure = measureAt(goal, version ?? goal.version);
  if (measure.kind !== 'rubric') throw new NotFound('This goal is not measured by a rubric.');
  return measure;
}

interface WorkSampleRow {
  id: string;
  goal_id: string;
  measure_version: number;
  title: string;
  made_on: IsoDate;
  entry_id: string | null;
}

/**
 * The work samples of a goal, newest first, with what was rated. Names of peers are for those who may share; everybody else of the team
 * sees “Peer 1”.
 *
 * @throws NotFound for a goal that has no rubric
 */
export async function workSamplesOf(db: Database, student: Student, goalId: string, now: Date): Promise<WorkSample[]> {
  await rubricOf(db, student.id, goalId);
  const rows: WorkSampleRow[] = await db('work_samples')
    .where({ student_id: student.id, goal_id: goalId })
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'made_at', order: 'desc' },
    ])
    .select('id', 'goal_id', 'measure_version', 'title', 'made_on', 'entry_id');
  return Promise.all(rows.map((row) => workSampleFrom(db, student, row, now)));
}

async function workSampleFrom(db: Database, student: Student, row: WorkSampleRow, now: Date): Promise<WorkSample> {
  const [rubric, ratings, asked] = await Promise.all([
    rubricOf(db, student.id, row.goal_id, row.measure_version),
    ratingsOf(db, row.id, can(student, 'share')),
    db('rating_links as l')
      .leftJoin('work_sample_ratings as r', 'r.rating_link_id', 'l.id')
      .where({ 'l.work_sample_id': row.id, 'l.withdrawn_at': null, 'r.id': null })
      .orderBy('l.ends_at')
      .select('l.id', 'l.kind', 'l.label', 'l.ends_at'),
  ]);
  return {
    ...{
      id: row.id,
      goalId: row.goal_id,
      title: row.title,
      madeOn: row.made_on,
      entryId: row.entry_id,
      rubric,
      ratings,
    },
    asked: asked.map(({ id, kind, label, ends_at }) => ({ id, kind, label, isOver: ends_at <= now })),
  };
}

/** What was rated of a work sample: staff first; peers and the student by name only where that is shown. */
export async function ratingsOf(db: Database, workSampleId: string, showsNames: boolean): Promise<Rating[]> {
  const rows: { id: string; kind: RaterKind; name: string; points: Rating['points']; words: string }[] = (
    await db.raw(
      // A classmate's name is found where the one who asks is on that student's team too.
      `select * from (
         select r.id, case when r.card_id is not null then 'student' when k.student_id is not null then 'peer'
                           else coalesce(l.kind, 'staff') end as kind,
                coalesce(p.short_name, l.label, s.short_name) as name, r.points, r.words, r.rated_at
           from work_sample_ratings r left join stack_raters k on k.id = r.stack_rater_id
           left join people p on p.id = coalesce(r.person_id, k.person_id) left join rating_links l on l.id = r.rating_link_id
           left join students s on s.id = k.student_id
          where r.work_sample_id = ?) as rated order by kind <> 'staff', kind desc, rated_at`,
      [workSampleId],
    )
  ).rows;
  // Colleagues know of each other; what a peer said is for those who may share.
  return rows.map((row) => ({ ...row, name: row.kind === 'staff' || showsNames ? row.name : null }));
}

/** Begins a work sample. Sent twice, it is one. For those who may observe. */
export async function addWorkSample(
  db: Database,
  actor: Actor,
  { studentId, goalId }: { studentId: string; goalId: string },
  { id, title, madeOn }: WorkSampleInput,
  now: Date,
): Promise<void> {
  const access = (await requireStudent(db, actor, studentId, 'observe')).id;
  await rubricOf(db, access, goalId);
  if (madeOn > actor.today) throw new Invalid({ madeOn: 'Choose today or an earlier day.' });
  const { version } = await goalOf(db, access, goalId);
  await db('work_samples')
    .insert({
      ...{ id, student_id: studentId, goal_id: goalId, measure_version: version, title, made_on: madeOn },
      ...{ made_by: actor.personId, made_at: now },
    })
    .onConflict('id')
    .ignore();
}

/** @throws NotFound for a work sample that is not this student’s; Conflict once it is an entry */
export async function openWorkSample(db: Database, studentId: string, workSampleId: string): Promise<WorkSampleRow> {
  const row = await db('work_samples').where({ id: workSampleId, student_id: studentId }).forUpdate().first();
  if (!row) throw new NotFound('No such work sample.');
  if (row.entry_id) throw new Conflict({ entryId: row.entry_id });
  return row;
}

/** Rates a work sample as a member of the team; a second rating by the same person replaces their first. */
export async function rateAsStaff(
  db: Database,
  actor: Actor,
  studentId: string,
  workSampleId: string,
  { id, points, words }: RatingInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'observe');
    await openWorkSample(trx, studentId, workSampleId);
    const content = { points: JSON.stringify(points), words, rated_at: now };
    await trx('work_sample_ratings')
      .insert({ id, work_sample_id: workSampleId, person_id: actor.personId, ...content })
      .onConflict(['work_sample_id', 'person_id'])
      .merge(content);
  });
}

/**
 * Asks a peer or the student to rate, by a link that lasts a day and works once.
 *
 * @returns the token; null when the same submission arrives again
 */
export async function askRater(
  db: Database,
  actor: Actor,
  studentId: string,
  workSampleId: string,
  { id, kind, label }: RatingLinkInput,
  now: Date,
): Promise<string | null> {
  await requireStudent(db, actor, studentId, 'observe');
  return db.transaction(async (trx) => {
    await openWorkSample(trx, studentId, workSampleId);
    const token = newToken();
    const endsAt = new Date(now.getTime() + RATING_LINK_HOURS * 3_600_000);
    const written = await trx('rating_links')
      .insert({ token_hash: hashToken(token), id, work_sample_id: workSampleId, kind, label, ends_at: endsAt })
      .onConflict('id')
      .ignore()
      .returning('id');
    return written.length === 1 ? token : null;
  });
}

declare const rating: unique symbol;

/** A rating link that is open, by its id: only `findRating` gives one, and nothing is rated by a link without it. */
export type RaterAccess = string & { readonly [rating]: true };

export interface FoundRating {
  link: RaterAccess;
  workSampleId: string;
  kind: 'peer' | 'student';
  title: string;
  rubric: RubricDefinition;
}

/** What a rating link leads to; null when there is none, it is over, or it was used. It says nothing of whose work sample it is. */
export async function findRating(db: Database, token: string, now: Date): Promise<FoundRating | null> {
  const row = await db('rating_links as l')
    .join('work_samples as p', 'p.id', 'l.work_sample_id')
    .leftJoin('work_sample_ratings as r', 'r.rating_link_id', 'l.id')
    .where({ 'l.token_hash': hashToken(token), 'l.withdrawn_at': null, 'p.entry_id': null, 'r.id': null })
    .where('l.ends_at', '>', now)
    .first('l.id', 'l.kind', 'p.id as work_sample_id', 'p.title', 'p.student_id', 'p.goal_id', 'p.measure_version');
  if (!row) return null;
  const rubric = await rubricOf(db, row.student_id, row.goal_id, row.measure_version);
  // The one place where the id of a link becomes access: it was found open just now.
  return { link: row.id as RaterAccess, workSampleId: row.work_sample_id, kind: row.kind, title: row.title, rubric };
}

/**
 * Keeps what a peer or the student rated by their link, once.
 *
 * @throws NotFound when the ratings were made an entry meanwhile
 */
export async function rateByLink(
  db: Database,
  { link, workSampleId }: Pick<FoundRating, 'link' | 'workSampleId'>,
  { id, points, words }: RatingInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const workSample = await trx('work_samples').where({ id: workSampleId, entry_id: null }).forUpdate().first('id');
    if (!workSample) throw new NotFound('It is an entry already: it is not rated any more.');
    await trx('work_sample_ratings')
      .insert({
        id,
        work_sample_id: workSampleId,
        rating_link_id: link,
        points: JSON.stringify(points),
        words,
        rated_at: now,
      })
      .onConflict('rating_link_id')
      .ignore();
  });
}

/**
 * Makes one entry of all ratings of a work sample: its score is the mean of what staff gave each criterion; what peers and the
 * student gave stands beside it. Asked twice, it is made once.
 *
 * @param entryId  from the client
 * @throws NotFound; Invalid while nobody of the staff has rated
 */
export async function makeEntry(
  db: Database,
  actor: Actor,
  studentId: string,
  { workSampleId, entryId }: { workSampleId: string; entryId: string },
  { wall, now }: { wall: WallTime; now: Date },
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'observe');
    // Of two who ask at the same moment the second one waits here, and finds the entry made.
    const workSample: WorkSampleRow | undefined = await trx('work_samples')
      .where({ id: workSampleId, student_id: studentId })
      .forUpdate()
      .first();
    if (!workSample) throw new NotFound('No such work sample.');
    if (workSample.entry_id) return;
    const ratings = await ratingsOf(trx, workSampleId, false);
    if (!ratings.some(({ kind }) => kind === 'staff')) {
      throw new Invalid({ '': 'Nobody of the team has rated it yet: only their ratings make the score.' });
    }
    const session = {
      ...{ on: workSample.made_on, time: workSample.made_on === wall.on ? wall.time : '12:00' },
      ...{ observerId: actor.personId, locationId: null },
      entries: [
        {
          ...{
            id: entryId,
            goalId: workSample.goal_id,
            goalVersion: workSample.measure_version,
            note: workSample.title,
          },
          outcome: { data: asEntry(ratings), reason: null },
        },
      ],
    };
    await recordSession(trx, actor, studentId, session, { wall, now });
    await trx('work_samples').where({ id: workSampleId }).update({ entry_id: entryId });
  });
}
