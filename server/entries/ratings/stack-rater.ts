import { z } from 'zod';
import type { Rating, RatingInput } from '~/core/entries/ratings/ratings';
import type { RubricDefinition } from '~/core/measures/rubric/rubric';
import { hashToken } from '../../people/tokens';
import type { Database } from '../../platform/db/database';
import { held, rowsOf } from '../../platform/db/rows';
import { Invalid, NotFound } from '../../platform/failures';
import { grant } from '../../students/access';
import { rubricOf } from './ratings';

const behindRow = z.object({
  stackId: z.string(),
  raterId: z.string(),
  title: z.string(),
  isClosed: z.boolean(),
  isDemo: z.boolean(),
  sampleId: z.string(),
  /** Its number in the stack: on its paper, on this list and on its teacher’s page. */
  number: held(z.number()),
  studentId: z.string(),
  isRated: z.boolean(),
});

/** What a rater's link leads to: their list, in an order that says nothing of whose work it is. */
export type BehindStack = z.infer<typeof behindRow>;

/** The work samples on a rater's list; none for a link that there is not, or not any more. */
export async function stackBehind(db: Database, token: string): Promise<BehindStack[]> {
  return rowsOf(
    db,
    behindRow,
    `select stack_id as "stackId", rater_id as "raterId", title, is_closed as "isClosed", is_demo as "isDemo", work_sample_id as "sampleId", number,
            student_id as "studentId", is_rated as "isRated" from stack_behind(:hash)`,
    { hash: hashToken(token) },
  );
}

const sampleRow = z.object({
  studentId: z.string(),
  goalId: z.string(),
  measureVersion: z.number(),
  text: z.string().nullable(),
  fileType: z.string().nullable(),
});

/** A work sample before one who rates it, with what they said of it. It does not say whose it is. */
export interface SampleToRate {
  text: string | null;
  fileType: string | null;
  rubric: RubricDefinition;
  own: Pick<Rating, 'points' | 'words'> | null;
}

/** To be asked at the door of the student whose work it is. @throws NotFound */
export async function sampleToRate(db: Database, { sampleId, raterId }: BehindStack): Promise<SampleToRate> {
  const [sample] = await rowsOf(
    db,
    sampleRow,
    `select w.student_id as "studentId", w.goal_id as "goalId", w.measure_version as "measureVersion", w.work_text as text, f.type as "fileType"
       from work_samples w left join work_sample_files f on f.work_sample_id = w.id where w.id = ?`,
    [sampleId],
  );
  if (!sample) throw new NotFound('No such work sample.');
  const own = await db('work_sample_ratings')
    .where({ work_sample_id: sampleId, stack_rater_id: raterId })
    .first('points', 'words');
  const points = z.record(z.string(), z.number());
  return {
    ...{ text: sample.text, fileType: sample.fileType },
    rubric: await rubricOf(db, grant(sample.studentId, 'rating link'), sample.goalId, sample.measureVersion),
    own: own ? { points: points.parse(own.points), words: own.words } : null,
  };
}

/** The photograph or PDF of a work sample. To be asked where it was found that its rater may see it. @throws NotFound */
export async function workFile(db: Database, sampleId: string): Promise<{ type: string; content: Buffer }> {
  const file = await db('work_sample_files').where({ work_sample_id: sampleId }).first('type', 'content');
  if (!file) throw new NotFound('No such file.');
  return file;
}

/**
 * Keeps what a rater says of a work sample on their list; said again, it takes the place of what they said, which is kept.
 *
 * @throws Invalid once the stack is closed, or the work sample is an entry
 */
export async function rateInStack(
  db: Database,
  { sampleId, raterId }: Pick<BehindStack, 'sampleId' | 'raterId'>,
  { id, points, words }: RatingInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const open = await trx('work_samples as w')
      .join('stacks as k', 'k.id', 'w.stack_id')
      .where({ 'w.id': sampleId, 'w.entry_id': null, 'k.closed_at': null })
      .forUpdate('w')
      .first('w.id');
    if (!open) throw new Invalid({ form: 'It is closed: nothing is rated any more.' });
    const content = { points: JSON.stringify(points), words, rated_at: now };
    const before = await trx('work_sample_ratings')
      .where({ work_sample_id: sampleId, stack_rater_id: raterId })
      .first('id');
    if (before) await trx('work_sample_ratings').where({ id: before.id }).update(content);
    else {
      await trx('work_sample_ratings')
        .insert({ id, work_sample_id: sampleId, stack_rater_id: raterId, ...content })
        .onConflict('id')
        .ignore();
    }
  });
}
