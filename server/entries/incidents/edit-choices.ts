import { isDeepStrictEqual } from 'node:util';
import {
  type BehaviorRow,
  type Choice,
  type ChoiceKind,
  type ChoiceRow,
  type ChoiceState,
  type ChoicesInput,
  choiceKinds,
  type OptionalField,
  plainName,
} from '~/core/entries/incidents/choice';
import type { Database } from '../../platform/db/database';
import { Invalid, NotFound } from '../../platform/failures';
import { requireSchoolAdmin } from '../../school/administrators';
import { type Actor, locationsOf } from '../../school/school';
import type { StudentAccess } from '../../students/access';
import { requireStudent } from '../../students/students';
import { choicesOf, fieldsLeftOut, type ListsOf, listsOf, startingChoices, tableOf, where } from './choices';
import { addMissing, choicesFrom } from './copy-choices';

/** The lists of a student, or of the school, for those who may edit them. */
async function requireLists(db: Database, actor: Actor, studentId: string | null): Promise<ListsOf> {
  const { schoolId } = actor;
  if (studentId !== null) return { schoolId, studentId: (await requireStudent(db, actor, studentId, 'editGoals')).id };
  await requireSchoolAdmin(db, actor);
  return { schoolId, studentId: null };
}

const rowOf = ({ id, name, words, locationId, discreetWord }: Choice): ChoiceRow => ({
  id,
  name,
  words,
  locationId,
  discreetWord,
  isDifferent: false,
});

/** Choices as the form has them: what is offered. */
function inForm(choices: readonly Choice[], leftOut: OptionalField[]): ChoicesInput {
  const offered = (kind: ChoiceKind) => choices.filter((choice) => choice.kind === kind && choice.state === 'offered');
  return {
    behavior: offered('behavior').map((choice): BehaviorRow => {
      const { unlike, direction, abc, counted, timed } = choice;
      return { ...rowOf(choice), unlike, direction, abc, counted, timed };
    }),
    antecedent: offered('antecedent').map(rowOf),
    consequence: offered('consequence').map(rowOf),
    location: offered('location').map(rowOf),
    intensity: offered('intensity').map(rowOf),
    function: offered('function').map(rowOf),
    leftOut,
  };
}

/**
 * How a student’s incidents (or the school’s starting lists) are set up. Where nothing is yet, a student begins from the
 * school’s lists, and those with the school’s places.
 *
 * @param from  whose choices are added to the form where it has none of their name: another student’s, or the school’s starting lists
 * @returns `isNew` when nothing has been saved yet; the choices that stand besides those in the form
 * @throws NotFound for someone who may not edit these lists
 */
export async function choicesInForm(
  db: Database,
  actor: Actor,
  studentId: string | null,
  newId: () => string,
  from: 'school' | { studentId: string } | null = null,
) {
  const lists = await requireLists(db, actor, studentId);
  const own = await listsOf(db, lists);
  const leftOut = lists.studentId === null ? [] : await fieldsLeftOut(db, lists.studentId);
  const isNew = own.length === 0;
  const begun = isNew && studentId !== null ? await startingChoices(db, actor.schoolId) : own;
  const input = inForm(isNew ? begun.map((choice) => ({ ...choice, id: newId() })) : own, leftOut);
  if (input.location.length === 0 && isNew) {
    const locations = await locationsOf(db, actor.schoolId);
    input.location = locations.map(({ id, name }) => ({
      id: newId(),
      name,
      words: '',
      locationId: id,
      discreetWord: '',
      isDifferent: false,
    }));
  }
  const fresh = (choices: readonly Choice[]) => choices.map((choice) => ({ ...choice, id: newId() }));
  const copied = from === null ? 0 : addMissing(input, inForm(fresh(await choicesFrom(db, actor, from)), []));
  const besides = own.filter(({ state, mergedInto }) => state !== 'offered' && mergedInto === null);
  return { isNew, input, copied, besides: besides.map(({ id, kind, name, state }) => ({ id, kind, name, state })) };
}

/**
 * Writes what incidents are described with, and in which order. What is not in the form any more is retired, never lost; what was
 * reworded reads so in old incidents too, and what it was called stays in its history.
 *
 * @throws NotFound; Invalid where a name is (or nearly is) that of another choice
 */
export async function saveChoices(
  db: Database,
  actor: Actor,
  studentId: string | null,
  input: ChoicesInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const lists = await requireLists(trx, actor, studentId);
    const before = await listsOf(trx, lists);
    expectNewNames(input, before);
    await expectOwnIds(trx, actor, input, before);
    const wanted = choiceKinds.flatMap((kind) =>
      input[kind].map((row, position) => ({ position, choice: choiceFrom(kind, row) })),
    );
    const kept = new Set(wanted.map(({ choice }) => choice.id));
    const gone = before.filter(({ id, state }) => state === 'offered' && !kept.has(id));
    const byId = new Map(before.map((choice) => [choice.id, choice]));
    const changed = [
      ...gone,
      ...wanted.flatMap(({ choice }) => {
        const known = byId.get(choice.id);
        return known && !isDeepStrictEqual(known, choice) ? [known] : [];
      }),
    ];
    await keepHistory(trx, actor, changed, now);
    for (const { id, kind } of gone) await trx(tableOf(kind)).where({ id }).update({ state: 'retired' });
    // Two that change names with each other would meet halfway.
    for (const { id, kind } of changed.filter(({ id }) => kept.has(id))) {
      await trx(tableOf(kind))
        .where({ id })
        .update(kind === 'behavior' ? { name: id } : { label: id });
    }
    for (const kind of choiceKinds) {
      const rows = wanted
        .filter(({ choice }) => choice.kind === kind)
        .map(({ choice, position }) => ({ ...columnsOf(choice), ...where(lists), position }));
      if (rows.length > 0) await anyRow(trx, kind).insert(rows).onConflict('id').merge();
    }
    if (studentId !== null) {
      const fields = { student_id: studentId, left_out: input.leftOut };
      await trx('behavior_fields').insert(fields).onConflict('student_id').merge();
    }
  });
}

function choiceFrom(kind: ChoiceKind, row: ChoiceRow | BehaviorRow): Choice {
  const { id, name, words, locationId, discreetWord } = row;
  const asBehavior =
    'direction' in row
      ? { unlike: row.unlike, direction: row.direction, abc: row.abc, counted: row.counted, timed: row.timed }
      : ({ unlike: '', direction: 'decrease', abc: true, counted: false, timed: false } as const);
  return { id, kind, name, words, discreetWord, ...asBehavior, state: 'offered', mergedInto: null, locationId };
}

/** A choice as columns of its table. */
function columnsOf({
  id,
  kind,
  name,
  words,
  unlike,
  direction,
  abc,
  counted,
  timed,
  state,
  mergedInto,
  locationId,
  discreetWord,
}: Choice) {
  const shared = { id, state, merged_into: mergedInto, discreet_word: discreetWord };
  return kind === 'behavior'
    ? {
        ...{ ...shared, name, definition: words, not_counted: unlike, direction },
        ...{ by_abc: abc, by_count: counted, by_time: timed },
      }
    : { ...shared, facet: kind, label: name, description: words, location_id: locationId };
}

/** The table of a kind of choice, of which there are two: `columnsOf` gives each its own columns. */
const anyRow = (db: Database, kind: ChoiceKind) => db<Record<string, unknown>>(tableOf(kind));

/**
 * Adds what was typed into an incident to a student’s lists, at the end.
 *
 * @returns whether it is new
 */
export async function insertChoice(
  db: Database,
  lists: ListsOf,
  { kind, ...typed }: Pick<Choice, 'id' | 'kind' | 'name' | 'state'>,
): Promise<boolean> {
  const row = {
    ...choiceFrom(kind, { ...typed, words: '', locationId: null, discreetWord: '', isDifferent: false }),
    state: typed.state,
  };
  const written = await anyRow(db, kind)
    .insert({ ...columnsOf(row), ...where(lists), position: 1000 })
    .onConflict('id')
    .ignore()
    .returning('id');
  return written.length > 0;
}

/** Keeps what choices say now, before they are changed. */
async function keepHistory(db: Database, actor: Actor, choices: readonly Choice[], now: Date): Promise<void> {
  for (const { id, kind } of choices) {
    const of = kind === 'behavior' ? 'target_id' : 'option_id';
    await db.raw(
      `insert into behavior_revisions (${of}, row, changed_by, changed_at)
       select id, to_jsonb(was), :by, :now from ${tableOf(kind)} was where id = :id`,
      { id, by: actor.personId, now },
    );
  }
}

/** A name that a choice outside of the form has already is a question, or the very same name. */
function expectNewNames(input: ChoicesInput, before: readonly Choice[]): void {
  const messages: Record<string, string> = {};
  for (const kind of choiceKinds) {
    const inForm = new Set(input[kind].map(({ id }) => id));
    const others = before.filter((choice) => choice.kind === kind && !choice.mergedInto && !inForm.has(choice.id));
    for (const [i, { name, isDifferent }] of input[kind].entries()) {
      const same = others.find((other) => plainName(other.name) === plainName(name));
      if (!same) continue;
      const what = { offered: 'taken away just now', other: 'typed into incidents', retired: 'retired' }[same.state];
      if (same.name === name)
        messages[`${kind}[${i}].name`] = `“${name}” is there, ${what}. Bring that one back instead.`;
      else if (!isDifferent) {
        messages[`${kind}[${i}].isDifferent`] = `“${same.name}” is there, ${what}. Do they mean different things?`;
      }
    }
  }
  if (Object.keys(messages).length > 0) throw new Invalid(messages);
}

/** An id of the form is new, or that of the same kind in the same list. */
async function expectOwnIds(
  db: Database,
  { schoolId }: Actor,
  input: ChoicesInput,
  before: readonly Choice[],
): Promise<void> {
  const known = new Map(before.map(({ id, kind }) => [id, kind]));
  const ids = choiceKinds.flatMap((kind) => input[kind].map(({ id }) => ({ id, kind })));
  if (ids.some(({ id, kind }) => known.has(id) && known.get(id) !== kind)) throw new NotFound('No such choice.');
  const fresh = ids.filter(({ id }) => !known.has(id)).map(({ id }) => id);
  const foreign = await db('behavior_choices').whereIn('id', fresh).first('id');
  if (foreign || new Set(ids.map(({ id }) => id)).size < ids.length) throw new NotFound('No such choice.');
  const locations = ids.length > 0 ? new Set((await locationsOf(db, schoolId)).map(({ id }) => id)) : new Set();
  for (const [i, { locationId }] of input.location.entries()) {
    if (locationId !== null && !locations.has(locationId)) {
      throw new Invalid({ [`location[${i}].locationId`]: 'Choose a location from the list.' });
    }
  }
}

/** One choice of a student, locked. */
async function choiceOf(db: Database, studentId: StudentAccess<'read'>, id: string): Promise<Choice> {
  for (const table of ['behavior_targets', 'behavior_options']) {
    await db(table).where({ id, student_id: studentId }).forUpdate();
  }
  const choice = (await choicesOf(db, studentId)).find((one) => one.id === id);
  if (!choice) throw new NotFound('No such choice.');
  return choice;
}

/**
 * Two choices mean the same: the one stands for the other in every incident, old ones too. The incidents themselves are not written
 * anew. Done twice, nothing more happens.
 *
 * @throws NotFound; Invalid for two of different kinds, or where the one that should stay has gone into the other
 */
export async function mergeChoices(
  db: Database,
  actor: Actor,
  studentId: string,
  { from, into }: { from: string; into: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
    const [gone, stays] = [await choiceOf(trx, access, from), await choiceOf(trx, access, into)];
    if (gone.mergedInto === stays.id) return;
    if (gone.kind !== stays.kind || from === into || stays.mergedInto !== null) {
      throw new Invalid({ into: 'Choose another one of the same list.' });
    }
    await keepHistory(trx, actor, [gone], now);
    const all = () => trx(tableOf(gone.kind));
    await all().where({ merged_into: from }).update({ merged_into: into });
    await all().where({ id: from }).update({ merged_into: into, state: 'retired' });
  });
}

/**
 * Offers a choice that was typed into an incident or retired, at the end of its list.
 *
 * @throws NotFound
 */
export async function offerChoice(db: Database, actor: Actor, studentId: string, id: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
    const choice = await choiceOf(trx, access, id);
    if (choice.state === 'offered') return;
    await keepHistory(trx, actor, [choice], now);
    const state: ChoiceState = 'offered';
    const last = await trx('behavior_choices')
      .where({ student_id: studentId, kind: choice.kind })
      .orderBy('position', 'desc')
      .first('position as at');
    await trx(tableOf(choice.kind))
      .where({ id })
      .update({ state, merged_into: null, position: (last?.at ?? 0) + 1 });
  });
}
