import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { isSkipped, secondsUntil, type WallTime } from '~/core/calendar/zone';
import { type Choice, type ChoiceKind, plainName, standingChoices } from '~/core/entries/incidents/choice';
import type { IncidentCorrection, IncidentEnd, IncidentInput } from '~/core/entries/incidents/incident-input';
import type { WithdrawalInput } from '~/core/entries/observation';
import type { Database } from '../../platform/db/database';
import { rowsOf } from '../../platform/db/rows';
import type { EntriesRow, IncidentChoicesRow, NewRow } from '../../platform/db/tables';
import { Invalid, NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import type { StudentAccess } from '../../students/access';
import { checkSession, notOnTeamWords, type SessionFacts } from '../check-session';
import { type Changes, changeRecord, revisedEntries } from '../corrections';
import { insertPhotographs, photographsFrom } from '../evidence/add';
import { choicesOf } from './choices';
import { insertChoice } from './edit-choices';
import { incidentOf, type StoredIncident } from './incidents';

/** When it is asked, and where: the clock on the school’s wall. */
export interface Moment {
  wall: WallTime;
  now: Date;
  timeZone: string;
}

interface When {
  on: string;
  time: string;
  observerId: string;
}

/**
 * Holds when and by whom something was seen against the school’s clock and the student’s team.
 *
 * @returns messages by field; none when all is well
 * @throws NotFound for someone who may not do this to the student
 */
export async function checkWhen(
  db: Database,
  actor: Actor,
  { studentId, right, besideId }: { studentId: string; right: 'observe' | 'see'; besideId?: string | null | undefined },
  { on, time, observerId }: When,
  { wall, timeZone }: Moment,
): Promise<SessionFacts> {
  const session = { on, time, observerId, locationId: null };
  const facts = await checkSession(db, actor, { studentId, right, goalIds: [] }, session, wall);
  if (isSkipped({ on, time }, timeZone)) {
    facts.messages.time = `The clocks went forward that day: there was no ${time}. Choose a time after it.`;
  }
  if (besideId === observerId) facts.messages.besideId = 'Choose somebody else.';
  else if (besideId) {
    const beside = { ...session, observerId: besideId };
    const { messages } = await checkSession(db, actor, { studentId, right, goalIds: [] }, beside, wall);
    if (messages.observerId) facts.messages.besideId = notOnTeamWords;
  }
  return facts;
}

type Content = Omit<IncidentCorrection, 'version' | 'why'>;

/**
 * Records an ABC incident. Its id comes from the client: the same incident again changes nothing.
 *
 * @throws NotFound; Invalid with a message at each field
 */
export async function recordIncident(
  db: Database,
  actor: Actor,
  studentId: string,
  input: IncidentInput,
  moment: Moment,
): Promise<SessionFacts['student']> {
  const photographs = await photographsFrom(input.id, input.photographs, 'form');
  return db.transaction(async (trx) => {
    const asked = { studentId, right: 'observe', besideId: input.besideId } as const;
    const { student, messages } = await checkWhen(trx, actor, asked, input, moment);
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    const { columns, choices } = await contentOf(trx, actor, student.id, input);
    const row = {
      ...{
        id: input.id,
        student_id: studentId,
        kind: 'incident' as const,
        ...columns,
        beside_id: input.besideId ?? null,
      },
      ...{ recorded_by: actor.personId, recorded_at: moment.now },
    };
    if (await insertOnce(trx, row)) await writeChoices(trx, row, 1, choices);
    else if (!isDeepStrictEqual(await choicesAt(trx, input.id, 1), choices)) throw saidOtherwise();
    await insertPhotographs(trx, { studentId, by: actor.personId }, photographs, moment.now);
    return student;
  });
}

/** An entry that is new: what every entry says, and what those of its kind say. */
type NewEntry = NewRow<'entries'> & Pick<EntriesRow, 'id' | 'student_id' | 'kind' | 'recorded_by'>;

/**
 * Writes an entry’s row once; when this person sent it before it must say the same, else a later change would be lost without a
 * word.
 *
 * @returns whether it was written now
 * @throws NotFound for an id that is somebody else’s; Invalid where it says something else
 */
export async function insertOnce(db: Database, row: NewEntry): Promise<boolean> {
  const written = await db('entries').insert(row).onConflict('id').ignore().returning('id');
  if (written.length > 0) return true;
  const { recorded_at: _, ...content } = row;
  const { id, student_id, kind, recorded_by } = row;
  const before = await db('entries').where({ id, student_id, kind, recorded_by }).first();
  if (!before) throw new NotFound('No such entry.');
  const said: Record<string, unknown> = { ...before, ...(await rowAtFirst(db, id)) };
  if (!Object.entries(content).every(([column, value]) => isDeepStrictEqual(said[column], value)))
    throw saidOtherwise();
  return false;
}

/** What an entry’s row said before it was ever changed; nothing where it never was. */
async function rowAtFirst(db: Database, id: string): Promise<Record<string, unknown>> {
  const found = await rowsOf(
    db,
    z.record(z.string(), z.unknown()),
    `select was.* from ${revisedEntries} as was order by was.version limit 1`,
    { id },
  );
  return found[0] ?? {};
}

const saidOtherwise = () =>
  new Invalid({
    form: 'An earlier try was saved already, and says something else. Start over here, and correct that one on its page.',
  });

/** One thing that an incident names. */
interface ChoiceColumns {
  facet: IncidentChoicesRow['facet'];
  position: number;
  target_id: string | null;
  option_id: string | null;
}

async function writeChoices(
  db: Database,
  { id, student_id }: { id: string; student_id: string },
  version: number,
  choices: readonly ChoiceColumns[],
): Promise<void> {
  await db('incident_choices').insert(choices.map((choice) => ({ entry_id: id, student_id, version, ...choice })));
}

/** What an incident names in one of its versions, in its order. */
function choicesAt(db: Database, entryId: string, version: number): Promise<ChoiceColumns[]> {
  return db('incident_choices')
    .where({ entry_id: entryId, version })
    .orderByRaw(
      `array_position(array['behavior','antecedent','consequence','function','location','intensity'], facet), position`,
    )
    .select('facet', 'position', 'target_id', 'option_id');
}

/** What an incident says, as its row and its choices; what was typed becomes a choice that is not offered, or the one it already is. */
async function contentOf(db: Database, actor: Actor, studentId: StudentAccess<'read'>, input: Content) {
  const choices = await choicesOf(db, studentId);
  const typed = await typedChoices(db, actor, studentId, input.others, choices);
  const of = (kind: ChoiceKind, ids: readonly string[]) => [
    ...new Set([...ids, ...typed.filter((one) => one.kind === kind).map(({ id }) => id)]),
  ];
  const lists: [ChoiceKind, string[]][] = [
    ['behavior', of('behavior', input.behaviors)],
    ['antecedent', of('antecedent', input.antecedents)],
    ['consequence', of('consequence', input.consequences)],
    ['function', of('function', input.functions)],
    ['location', of('location', input.locationId ? [input.locationId] : []).slice(-1)],
    ['intensity', input.intensityId ? [input.intensityId] : []],
  ];
  const known = new Map([...choices, ...typed].map((choice) => [choice.id, choice.kind]));
  const named = lists.flatMap(([kind, ids]) => ids.map((id, i) => ({ kind, id, position: i + 1 })));
  if (named.some(({ kind, id }) => known.get(id) !== kind)) throw new NotFound('No such choice.');
  const columns = {
    ...{ observed_on: input.on, observed_time: input.time, observer_id: input.observerId, note: input.note },
    ...{
      seconds: input.seconds,
      is_going: input.isGoing,
      resolved: input.resolved,
      resolved_after: input.resolvedAfter,
    },
  };
  return {
    columns,
    choices: named.map(({ kind, id, position }): ChoiceColumns => {
      const isTarget = kind === 'behavior';
      return { facet: kind, position, target_id: isTarget ? id : null, option_id: isTarget ? null : id };
    }),
  };
}

async function typedChoices(
  db: Database,
  { schoolId }: Actor,
  studentId: StudentAccess<'read'>,
  others: Content['others'],
  choices: readonly Choice[],
): Promise<Pick<Choice, 'id' | 'kind'>[]> {
  const standing = standingChoices(choices);
  const typed: Pick<Choice, 'id' | 'kind'>[] = [];
  for (const { id, kind, name } of others) {
    const same = choices.find((choice) => choice.kind === kind && plainName(choice.name) === plainName(name));
    if (same) {
      typed.push(standing.get(same.id) ?? same);
      continue;
    }
    const choice = { id, kind, name: name.replace(/\s+/g, ' '), state: 'other' as const };
    const written = await insertChoice(db, { schoolId, studentId }, choice);
    if (!written) throw new NotFound('No such choice.');
    typed.push({ id, kind });
  }
  return typed;
}

const changeOf = (
  db: Database,
  actor: Actor,
  ids: IncidentIds,
  change: { version: number; why: string; now: Date; right?: 'observe' },
) => ({
  with: (
    changesTo: (note: StoredIncident, trx: Database) => Promise<{ columns: Changes; choices?: ChoiceColumns[] }>,
  ) => {
    let choices: ChoiceColumns[] | undefined;
    return changeRecord<StoredIncident>(db, actor, {
      ...change,
      studentId: ids.studentId,
      id: ids.noteId,
      read: (trx, access, options) => incidentOf(trx, access, ids.noteId, options),
      changesTo: async (note, trx) => {
        const content = await changesTo(note, trx);
        choices = content.choices;
        return content.columns;
      },
      isSame: (incident) => !choices || isDeepStrictEqual(namedBy(incident), new Set(choices.map(idOfChoice))),
      // Each version names its own: where nothing is said of it, what the one before named.
      afterwards: async (incident, _, trx) => {
        const row = { id: incident.id, student_id: incident.studentId };
        await writeChoices(
          trx,
          row,
          incident.version + 1,
          choices ?? (await choicesAt(trx, incident.id, incident.version)),
        );
      },
    });
  },
});

const idOfChoice = ({ target_id, option_id }: ChoiceColumns) => target_id ?? option_id;

const namedBy = ({ behaviors, antecedents, consequences, functions, locationId, intensityId }: StoredIncident) =>
  new Set(
    [...behaviors, ...antecedents, ...consequences, ...functions, locationId, intensityId].filter((id) => id !== null),
  );

interface IncidentIds {
  studentId: string;
  noteId: string;
}

/**
 * Replaces what an incident says. Its history is kept, with the reason.
 *
 * @throws NotFound, NotAllowed, Invalid (messages by field), Conflict (what stands now)
 */
export function correctIncident(
  db: Database,
  actor: Actor,
  ids: IncidentIds,
  { version, why, ...input }: IncidentCorrection,
  moment: Moment,
): Promise<StoredIncident> {
  return changeOf(db, actor, ids, { version, why, now: moment.now }).with(async (_, trx) => {
    const asked = { studentId: ids.studentId, right: 'see' } as const;
    const { student, messages } = await checkWhen(trx, actor, asked, input, moment);
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    return contentOf(trx, actor, student.id, input);
  });
}

/** Takes an incident out of every figure and view; it stays readable on its own page, with the reason. */
export function withdrawIncident(
  db: Database,
  actor: Actor,
  ids: IncidentIds,
  { version, why }: WithdrawalInput,
  now: Date,
): Promise<StoredIncident> {
  return changeOf(db, actor, ids, { version, why, now }).with(async () => ({ columns: { withdrawn: true } }));
}

/**
 * An incident that was still going is over, whoever noted it: now, at a time of the same day, or after so many seconds.
 *
 * @throws NotFound, NotAllowed; Invalid for an end before the start; Conflict when it has been closed or changed already
 */
export function endIncident(
  db: Database,
  actor: Actor,
  ids: IncidentIds,
  input: IncidentEnd,
  moment: Moment,
): Promise<StoredIncident> {
  const why = 'It was still going, and ended.';
  return changeOf(db, actor, ids, { version: input.version, why, now: moment.now, right: 'observe' }).with(
    async (incident) => {
      const { wall, timeZone } = moment;
      if (input.seconds !== null) return { columns: { is_going: false, seconds: input.seconds } };
      if (input.time === null && incident.on !== wall.on) {
        throw new Invalid({ time: 'It began on another day: say how long it lasted.' });
      }
      const until = input.time ?? wall.time;
      if (incident.on === wall.on && until > wall.time) throw new Invalid({ time: 'This lies in the future.' });
      const seconds = secondsUntil(incident, until, timeZone);
      if (seconds === null)
        throw new Invalid({ time: `It began at ${incident.time}: it cannot have ended before that.` });
      // Less than a minute cannot be told from two times on the wall.
      return { columns: { is_going: false, seconds: Math.max(30, seconds) } };
    },
  );
}
