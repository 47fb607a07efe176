import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import type { Rating, RatingInput } from '~/core/entries/ratings/ratings';
import type { RubricDefinition } from '~/core/measures/rubric/rubric';
import type { Database } from '../../platform/db/database';
import { Conflict } from '../../platform/failures';
import type { StudentAccess } from '../../students/access';
import { openWorkSample, ratingsOf, rubricOf } from './ratings';

/** A work sample as its student sees it at their desk. */
export interface OwnWorkSample {
  id: string;
  title: string;
  madeOn: IsoDate;
  rubric: RubricDefinition;
  /** What they said themselves; null while they have not. */
  own: Rating | null;
  /** What staff said; empty until the student has said what they think. */
  staff: Rating[];
}

/** Work samples older than this are not asked about any more. */
const OWN_SINCE = 60;

/**
 * The work samples of a student that they may rate, or have rated, newest first. What staff said is not in it before they have.
 *
 * @param today  at their school
 */
export async function ownWorkSamples(
  db: Database,
  studentId: StudentAccess<'read'>,
  today: IsoDate,
): Promise<OwnWorkSample[]> {
  const rows = await db('work_samples')
    .where({ student_id: studentId })
    .where('made_on', '>=', addDays(today, -OWN_SINCE))
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'made_at', order: 'desc' },
    ])
    .select('id', 'goal_id', 'measure_version', 'title', 'made_on', 'entry_id');
  const samples: OwnWorkSample[] = [];
  for (const row of rows) {
    const ratings = await ratingsOf(db, row.id, false);
    const own = ratings.find(({ kind }) => kind === 'student') ?? null;
    // What has become an entry is not asked about any more: the ratings in it are read out already.
    if (!own && row.entry_id) continue;
    samples.push({
      ...{ id: row.id, title: row.title, madeOn: row.made_on, own },
      rubric: await rubricOf(db, studentId, row.goal_id, row.measure_version),
      staff: own ? ratings.filter(({ kind }) => kind === 'staff').map((one) => ({ ...one, name: null })) : [],
    });
  }
  return samples;
}

/**
 * Keeps what a student thinks of their own work. Once said it stays: what the teacher said is shown from then on.
 *
 * @throws NotFound for a work sample that is not theirs; Conflict once it was said, or the work sample is an entry
 */
export async function rateOwn(
  db: Database,
  { studentId, cardId }: { studentId: StudentAccess<'read'>; cardId: string },
  workSampleId: string,
  { id, points, words }: RatingInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await openWorkSample(trx, studentId, workSampleId);
    const before = await trx('work_sample_ratings as r')
      .leftJoin('rating_links as l', 'l.id', 'r.rating_link_id')
      .where({ 'r.work_sample_id': workSampleId })
      .where((own) => own.whereNotNull('r.card_id').orWhere('l.kind', 'student'))
      .first('r.id');
    if (before && before.id !== id) throw new Conflict({ id: before.id });
    await trx('work_sample_ratings')
      .insert({
        ...{ id, work_sample_id: workSampleId, card_id: cardId, points: JSON.stringify(points), words, rated_at: now },
      })
      .onConflict('id')
      .ignore();
  });
}
