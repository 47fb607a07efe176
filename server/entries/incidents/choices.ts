import { z } from 'zod';
import { type Choice, type ChoiceKind, choiceKinds, type OptionalField } from '~/core/entries/incidents/choice';
import type { Database } from '../../platform/db/database';
import { rowsOf } from '../../platform/db/rows';
import type { StudentAccess } from '../../students/access';

const columns = `id, kind, name, words, unlike, direction, abc, counted, timed, state, merged_into as "mergedInto",
  location_id as "locationId", discreet_word as "discreetWord"`;

/** Whose lists these are: one student’s, or those that a school begins from (`studentId` null). */
export interface ListsOf {
  schoolId: string;
  studentId: StudentAccess<'read'> | null;
}

export const where = ({ schoolId, studentId }: ListsOf) => ({ school_id: schoolId, student_id: studentId });

/** Behaviors stand in a table of their own: they have a definition and ways of being recorded. */
export const tableOf = (kind: ChoiceKind) => (kind === 'behavior' ? 'behavior_targets' : 'behavior_options');

/** What a student’s incidents are described with, in order, retired and merged ones too. */
export async function choicesOf(db: Database, studentId: StudentAccess<'read'>): Promise<Choice[]> {
  return (await choicesOfAll(db, [studentId])).get(studentId) ?? [];
}

const choiceRow = z.object({
  id: z.string(),
  kind: z.enum(choiceKinds),
  name: z.string(),
  words: z.string(),
  discreetWord: z.string(),
  unlike: z.string(),
  direction: z.enum(['decrease', 'increase']),
  abc: z.boolean(),
  counted: z.boolean(),
  timed: z.boolean(),
  state: z.enum(['offered', 'other', 'retired']),
  mergedInto: z.string().nullable(),
  locationId: z.string().nullable(),
}) satisfies z.ZodType<Choice>;

/** What a school’s students begin from. */
export async function startingChoices(db: Database, schoolId: string): Promise<Choice[]> {
  return rowsOf(
    db,
    choiceRow,
    `select ${columns} from behavior_choices where school_id = ? and student_id is null order by position, name`,
    [schoolId],
  );
}

export const listsOf = (db: Database, { schoolId, studentId }: ListsOf) =>
  studentId === null ? startingChoices(db, schoolId) : choicesOf(db, studentId);

/** The same of several students. */
export async function choicesOfAll(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
): Promise<Map<string, Choice[]>> {
  const found = await rowsOf(
    db,
    choiceRow.extend({ studentId: z.string() }),
    `select ${columns}, student_id as "studentId" from behavior_choices where student_id = any(?) order by position, name`,
    [[...studentIds]],
  );
  const all = new Map<string, Choice[]>(studentIds.map((id) => [id, []]));
  for (const { studentId, ...choice } of found) all.get(studentId)?.push(choice);
  return all;
}

/** The fields that a student’s team does not use. */
export async function fieldsLeftOut(db: Database, studentId: StudentAccess<'read'>): Promise<OptionalField[]> {
  const row = await db('behavior_fields').where({ student_id: studentId }).first('left_out');
  return row?.left_out ?? [];
}

const earlierDefinitionRow = z.object({
  choiceId: z.string(),
  name: z.string(),
  words: z.string(),
  unlike: z.string(),
  until: z.date(),
  changedBy: z.string(),
});
export type EarlierDefinition = z.infer<typeof earlierDefinitionRow>;

/** What the target behaviors of a student were called and defined as before, newest first. */
export async function earlierDefinitions(db: Database, studentId: StudentAccess<'read'>): Promise<EarlierDefinition[]> {
  return rowsOf(
    db,
    earlierDefinitionRow,
    `select c.id as "choiceId", h.row ->> 'name' as name, h.row ->> 'definition' as words,
            h.row ->> 'not_counted' as unlike, h.changed_at as until, p.short_name as "changedBy"
       from behavior_revisions h join behavior_targets c on c.id = h.target_id join people p on p.id = h.changed_by
      where c.student_id = ?
      order by h.id desc`,
    [studentId],
  );
}
