import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { WallTime } from '~/core/calendar/zone';
import type { Rating } from '~/core/entries/ratings/ratings';
import { LONGEST_WORK, type StackInput, spreadRaters, type Turn } from '~/core/entries/ratings/stack';
import type { RubricDefinition } from '~/core/measures/rubric/rubric';
import { goalsOf } from '../../goals/goals';
import { hashToken, newToken } from '../../people/tokens';
import type { Database } from '../../platform/db/database';
import { rowsOf } from '../../platform/db/rows';
import { Invalid, NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import { readStudent } from '../../students/access';
import { requireStudent, studentsOf } from '../../students/students';
import { prepareEvidence } from '../evidence/add';
import { makeEntry, ratingsOf, rubricOf } from './ratings';

const stackRow = z.object({
  id: z.string(),
  title: z.string(),
  each: z.number(),
  madeAt: z.date(),
  isClosed: z.boolean(),
  raters: z.array(
    z.object({
      id: z.string(),
      /** Null for a classmate who has left one's teams. */
      name: z.string().nullable(),
      isStaff: z.boolean(),
      turns: z.number(),
      rated: z.number(),
    }),
  ),
  samples: z.array(
    z.object({
      id: z.string(),
      /** From 1, as it stands on the paper; in no order of whose they are. */
      number: z.number(),
      studentId: readStudent,
      name: z.string(),
      initials: z.string(),
      goalId: z.string(),
      measureVersion: z.number(),
      text: z.string().nullable(),
      fileType: z.string().nullable(),
      entryId: z.string().nullable(),
      turns: z.number(),
      rated: z.number(),
    }),
  ),
});
export type Stack = z.infer<typeof stackRow>;

const stacksQuery = `
  select k.id, k.title, k.each_rated_by as each, k.made_at as "madeAt", k.closed_at is not null as "isClosed",
         (select coalesce(json_agg(json_build_object('id', r.id, 'name', coalesce(p.short_name, s.short_name), 'isStaff', r.person_id is not null,
                   'turns', (select count(*) from stack_turns t where t.rater_id = r.id),
                   'rated', (select count(*) from work_sample_ratings g where g.stack_rater_id = r.id))
                 order by r.person_id is null, coalesce(p.short_name, s.short_name)), '[]')
            from stack_raters r left join people p on p.id = r.person_id left join students s on s.id = r.student_id
           where r.stack_id = k.id) as raters,
         (select coalesce(json_agg(json_build_object('id', w.id, 'number', w.number, 'studentId', w.student_id, 'name', s.short_name, 'initials', s.initials,
                   'goalId', w.goal_id, 'measureVersion', w.measure_version, 'text', w.work_text, 'fileType', f.type, 'entryId', w.entry_id,
                   'turns', (select count(*) from stack_turns t where t.work_sample_id = w.id),
                   'rated', (select count(*) from work_sample_ratings g where g.work_sample_id = w.id and g.stack_rater_id is not null))
                 order by w.number), '[]')
            from work_samples w join students s on s.id = w.student_id left join work_sample_files f on f.work_sample_id = w.id
           where w.stack_id = k.id) as samples
    from stacks k where k.made_by = :personId and k.school_id = :schoolId`;

/** The stacks that the one who asks has made, the newest first. */
export async function stacksOf(db: Database, actor: Actor): Promise<Stack[]> {
  return rowsOf(db, stackRow, `${stacksQuery} order by k.closed_at is not null, k.made_at desc limit 100`, {
    ...actor,
  });
}

/** @throws NotFound when it is not one of this person's */
export async function stackOf(db: Database, actor: Actor, id: string): Promise<Stack> {
  const [found] = await rowsOf(db, stackRow, `${stacksQuery} and k.id = :id`, { ...actor, id });
  if (!found) throw new NotFound('No such stack.');
  return found;
}

/**
 * Makes a stack: a work sample of each chosen student, by their own goal's rubric, and its raters, spread evenly. Sent twice, it is made
 * once.
 *
 * @throws NotFound for a student whom this person may not observe; Invalid with a message at the field
 */
export async function makeStack(db: Database, actor: Actor, input: StackInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const students = await studentsOf(trx, actor);
    const goals = await goalsOf(
      trx,
      students.map(({ id }) => id),
    );
    const chosen = input.goalIds.map((goalId) => {
      const goal = goals.find(({ id }) => id === goalId);
      if (goal?.measure.kind !== 'rubric' || goal.retired)
        throw new Invalid({ goalIds: 'Choose students from the list.' });
      return goal;
    });
    if (new Set(chosen.map(({ studentId }) => studentId)).size < chosen.length) {
      throw new Invalid({ goalIds: 'Choose one goal of each student.' });
    }
    if (input.staffIds.length + input.classmateIds.length === 0)
      throw new Invalid({ staffIds: 'Choose at least one rater.' });
    const staff = await trx('school_staff')
      .where({ school_id: actor.schoolId })
      .whereIn('person_id', input.staffIds)
      .distinct('person_id');
    if (staff.length !== new Set(input.staffIds).size) throw new Invalid({ staffIds: 'Choose staff from the list.' });
    for (const { studentId } of chosen) await requireStudent(trx, actor, studentId, 'observe');
    for (const id of input.classmateIds) await requireStudent(trx, actor, id, 'observe');
    const made = { made_by: actor.personId, made_at: now };
    const added = await trx('stacks')
      .insert({ id: input.id, school_id: actor.schoolId, title: input.title, each_rated_by: input.each, ...made })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (added.length === 0) {
      await stackOf(trx, actor, input.id);
      return;
    }
    const samples = chosen
      .map(({ id, studentId, version }) => ({ id: randomUUID(), studentId, goalId: id, version }))
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .map((one, at) => ({ ...one, number: at + 1 }));
    await trx('work_samples').insert(
      samples.map(({ id, studentId, goalId, version, number }) => ({
        ...{ id, number, student_id: studentId, goal_id: goalId, measure_version: version, stack_id: input.id },
        ...{ title: input.title, made_on: actor.today, ...made },
      })),
    );
    const raters = [
      ...input.staffIds.map((personId) => ({ id: randomUUID(), personId, studentId: null })),
      ...input.classmateIds.map((studentId) => ({ id: randomUUID(), personId: null, studentId })),
    ];
    await trx('stack_raters').insert(
      raters.map(({ id, personId, studentId }) => ({
        ...{ id, stack_id: input.id, person_id: personId, student_id: studentId, token_hash: hashToken(newToken()) },
      })),
    );
    await insertTurns(trx, input.id, spreadRaters(samples, raters, input.each));
  });
}

async function insertTurns(trx: Database, stackId: string, turns: readonly Turn[]): Promise<void> {
  if (turns.length === 0) throw new Invalid({ classmateIds: 'Nobody of these may rate: nobody rates their own.' });
  await trx('stack_turns').insert(
    turns.map(({ raterId, sampleId }) => ({ rater_id: raterId, stack_id: stackId, work_sample_id: sampleId })),
  );
}

const mineAs = ({ personId, schoolId }: Actor, id: string) => ({ id, made_by: personId, school_id: schoolId });

/** Closes a stack, so that nobody rates or corrects any more, or opens it again. @throws NotFound */
export async function setStackClosed(
  db: Database,
  actor: Actor,
  { id, isClosed }: { id: string; isClosed: boolean },
  now: Date,
): Promise<void> {
  const found = await db('stacks')
    .where(mineAs(actor, id))
    .update({ closed_at: isClosed ? now : null });
  if (found === 0) throw new NotFound('No such stack.');
}

/**
 * Gives each rater a link to their list, in place of the one before.
 *
 * @param raterId  one of them only
 * @returns each with the token of their link
 * @throws NotFound
 */
export async function newStackLinks(
  db: Database,
  actor: Actor,
  id: string,
  raterId?: string,
): Promise<{ raterId: string; name: string | null; token: string }[]> {
  return db.transaction(async (trx) => {
    const { raters } = await stackOf(trx, actor, id);
    const wanted = raterId ? raters.filter((rater) => rater.id === raterId) : raters;
    if (wanted.length === 0) throw new NotFound('No such rater.');
    const links: { raterId: string; name: string | null; token: string }[] = [];
    for (const rater of wanted) {
      const token = newToken();
      await trx('stack_raters')
        .where({ id: rater.id })
        .update({ token_hash: hashToken(token) });
      links.push({ raterId: rater.id, name: rater.name, token });
    }
    return links;
  });
}

/**
 * Puts the work itself into the stack: a text, or a photograph or a PDF.
 *
 * @throws NotFound; Invalid for what cannot be kept, and once somebody has rated what was there
 */
export async function putWork(
  db: Database,
  actor: Actor,
  { id, sampleId, text, file }: { id: string; sampleId: string; text: string; file: Buffer | null },
  now: Date,
): Promise<void> {
  if (text.length > LONGEST_WORK)
    throw new Invalid({ text: `Keep it to ${LONGEST_WORK.toLocaleString('en-US')} characters.` });
  const prepared = file && (await prepareEvidence(file));
  await db.transaction(async (trx) => {
    const sample = (await stackOf(trx, actor, id)).samples.find((one) => one.id === sampleId);
    if (!sample) throw new NotFound('No such work sample.');
    await requireStudent(trx, actor, sample.studentId, 'observe');
    if (sample.rated > 0) throw new Invalid({ file: 'Somebody has rated it already: it stays as it is.' });
    await trx('work_samples')
      .where({ id: sampleId })
      .update({ work_text: text.trim() || null });
    if (!prepared) return;
    const { type, content } = prepared;
    const row = { type, content, bytes: content.length, added_by: actor.personId, added_at: now };
    await trx('work_sample_files')
      .insert({ work_sample_id: sampleId, ...row })
      .onConflict('work_sample_id')
      .merge(row);
  });
}

/** All that was rated of a stack, with its rubric, by work sample. */
export async function stackRatings(
  db: Database,
  { samples }: Stack,
): Promise<Map<string, { rubric: RubricDefinition; ratings: Rating[] }>> {
  const all = new Map<string, { rubric: RubricDefinition; ratings: Rating[] }>();
  for (const { id, studentId, goalId, measureVersion } of samples) {
    all.set(id, {
      rubric: await rubricOf(db, studentId, goalId, measureVersion),
      ratings: await ratingsOf(db, id, true),
    });
  }
  return all;
}

/**
 * Makes an entry of each work sample that staff have rated: see `makeEntry`. Asked twice, each is made once.
 *
 * @returns how many are entries now
 * @throws NotFound; Invalid while the stack is open
 */
export async function makeStackEntries(
  db: Database,
  actor: Actor,
  id: string,
  when: { wall: WallTime; now: Date },
): Promise<number> {
  return db.transaction(async (trx) => {
    const stack = await stackOf(trx, actor, id);
    if (!stack.isClosed) throw new Invalid({ form: 'Close the stack first: then nobody corrects any more.' });
    let made = 0;
    for (const { id: workSampleId, studentId, entryId } of stack.samples) {
      if (entryId) continue;
      const ratings = await ratingsOf(trx, workSampleId, false);
      if (!ratings.some(({ kind }) => kind === 'staff')) continue;
      await makeEntry(trx, actor, studentId, { workSampleId, entryId: randomUUID() }, when);
      made++;
    }
    return made;
  });
}
