import { isDeepStrictEqual } from 'node:util';
import { type Choice, type ChoiceKind, plainName, standingChoices } from '~/core/behavior/choice';
import type { NoteCorrection, NoteEnd, NoteInput } from '~/core/behavior/note-input';
import { isSkipped, secondsUntil, type WallTime } from '~/core/calendar/zone';
import type { WithdrawalInput } from '~/core/observations/observation';
import { type Database, isDuplicate } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { checkSession, notOnTeamWords, type SessionFacts } from '../observations/check-session';
import { changeRecord } from '../recorded/change';
import type { Actor } from '../students/students';
import { choicesOf } from './choices';
import { type Note, noteOf, noteRecords } from './notes';

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
 * @throws NotFound for whom may not do this to the student
 */
export async function checkWhen(
  db: Database,
  actor: Actor,
  { studentId, right, besideId }: { studentId: string; right: 'observe' | 'see'; besideId?: string | null | undefined },
  { on, time, observerId }: When,
  { wall, timeZone }: Moment,
): Promise<SessionFacts> {
  const session = { on, time, observerId, settingId: null };
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

type Content = Omit<NoteCorrection, 'version' | 'why'>;

/**
 * Records an ABC note. Its id comes from the client: the same note again changes nothing.
 *
 * @throws NotFound; Invalid with a message at each field
 */
export async function recordNote(
  db: Database,
  actor: Actor,
  studentId: string,
  input: NoteInput,
  moment: Moment,
): Promise<SessionFacts['student']> {
  return db.transaction(async (trx) => {
    const asked = { studentId, right: 'observe', besideId: input.besideId } as const;
    const { student, messages } = await checkWhen(trx, actor, asked, input, moment);
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    const row = {
      id: input.id,
      student_id: studentId,
      ...(await columnsOf(trx, studentId, input)),
      beside_id: input.besideId ?? null,
      recorded_by: actor.personId,
      recorded_at: moment.now,
    };
    await insertOnce(trx, noteRecords.table, row);
    return student;
  });
}

/**
 * Writes a row once; when this person sent it before it must say the same, else a later change would be lost without a word.
 *
 * @throws NotFound for an id that is somebody else’s; Invalid where it says something else
 */
export async function insertOnce(
  db: Database,
  table: string,
  row: { id: string; student_id: string; recorded_by: string } & Record<string, unknown>,
): Promise<void> {
  const written = await db
    .transaction((inner) =>
      inner(table).insert(row).onConflict(['id', 'student_id', 'recorded_by']).ignore().returning('id'),
    )
    .catch((error) => {
      if (isDuplicate(error)) throw new NotFound('No such note.');
      throw error;
    });
  if (written.length > 0) return;
  const { recorded_at: _, ...content } = row;
  const before = await db(table).where({ id: row.id }).first();
  if (!Object.entries(content).every(([column, value]) => isDeepStrictEqual(before[column], value))) {
    throw new Invalid({
      form: 'An earlier try was saved already, and says something else. Start over here, and correct that one on its page.',
    });
  }
}

/** The columns of what a note says; what was typed becomes a choice that is not offered, or the one it already is. */
async function columnsOf(db: Database, studentId: string, input: Content) {
  const choices = await choicesOf(db, studentId);
  const typed = await typedChoices(db, studentId, input.others, choices);
  const of = (kind: ChoiceKind, ids: readonly string[]) => [
    ...new Set([...ids, ...typed.filter((one) => one.kind === kind).map(({ id }) => id)]),
  ];
  const [settingId = null] = of('setting', input.settingId ? [input.settingId] : []).slice(-1);
  const known = new Map([...choices, ...typed].map((choice) => [choice.id, choice.kind]));
  const expectKind = (kind: ChoiceKind, ids: readonly (string | null)[]) => {
    if (ids.some((id) => id !== null && known.get(id) !== kind)) throw new NotFound('No such choice.');
  };
  const lists = {
    behaviors: of('behavior', input.behaviors),
    antecedents: of('antecedent', input.antecedents),
    consequences: of('consequence', input.consequences),
    functions: of('function', input.functions),
  };
  expectKind('behavior', lists.behaviors);
  expectKind('antecedent', lists.antecedents);
  expectKind('consequence', lists.consequences);
  expectKind('function', lists.functions);
  expectKind('setting', [settingId]);
  expectKind('intensity', [input.intensityId]);
  return {
    occurred_on: input.on,
    occurred_time: input.time,
    observer_id: input.observerId,
    setting_id: settingId,
    ...lists,
    intensity_id: input.intensityId,
    seconds: input.seconds,
    is_going: input.isGoing,
    resolved: input.resolved,
    resolved_after: input.resolvedAfter,
    note: input.note,
  };
}

async function typedChoices(
  db: Database,
  studentId: string,
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
    const row = { id, student_id: studentId, kind, name: name.replace(/\s+/g, ' '), position: 1000, state: 'other' };
    const written = await db('behavior_choices').insert(row).onConflict('id').ignore().returning('id');
    if (written.length === 0) throw new NotFound('No such choice.');
    typed.push({ id, kind });
  }
  return typed;
}

const changeOf = (
  db: Database,
  actor: Actor,
  ids: NoteIds,
  change: { version: number; why: string; now: Date; right?: 'observe' },
) => ({
  with: (changesTo: (note: Note, trx: Database) => Promise<Record<string, unknown>>) =>
    changeRecord<Note>(db, actor, {
      ...noteRecords,
      ...change,
      studentId: ids.studentId,
      id: ids.noteId,
      read: (trx, options) => noteOf(trx, ids.studentId, ids.noteId, options),
      changesTo,
    }),
});

interface NoteIds {
  studentId: string;
  noteId: string;
}

/**
 * Replaces what a note says. Its history is kept, with the reason.
 *
 * @throws NotFound, NotAllowed, Invalid (messages by field), Conflict (what stands now)
 */
export function correctNote(
  db: Database,
  actor: Actor,
  ids: NoteIds,
  { version, why, ...input }: NoteCorrection,
  moment: Moment,
): Promise<Note> {
  return changeOf(db, actor, ids, { version, why, now: moment.now }).with(async (_, trx) => {
    const asked = { studentId: ids.studentId, right: 'see' } as const;
    const { messages } = await checkWhen(trx, actor, asked, input, moment);
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    return columnsOf(trx, ids.studentId, input);
  });
}

/** Takes a note out of every figure and view; it stays readable on its own page, with the reason. */
export function withdrawNote(
  db: Database,
  actor: Actor,
  ids: NoteIds,
  { version, why }: WithdrawalInput,
  now: Date,
): Promise<Note> {
  return changeOf(db, actor, ids, { version, why, now }).with(async () => ({ withdrawn: true }));
}

/**
 * An incident that was still going is over, whoever noted it: now, at a time of the same day, or after so many seconds.
 *
 * @throws NotFound, NotAllowed; Invalid for an end before the start; Conflict when it has been closed or changed already
 */
export function endNote(db: Database, actor: Actor, ids: NoteIds, input: NoteEnd, moment: Moment): Promise<Note> {
  const why = 'It was still going, and ended.';
  return changeOf(db, actor, ids, { version: input.version, why, now: moment.now, right: 'observe' }).with(
    async (note) => {
      const { wall, timeZone } = moment;
      if (input.seconds !== null) return { is_going: false, seconds: input.seconds };
      if (input.time === null && note.on !== wall.on) {
        throw new Invalid({ time: 'It began on another day: say how long it lasted.' });
      }
      const until = input.time ?? wall.time;
      if (note.on === wall.on && until > wall.time) throw new Invalid({ time: 'This lies in the future.' });
      const seconds = secondsUntil(note, until, timeZone);
      if (seconds === null) throw new Invalid({ time: `It began at ${note.time}: it cannot have ended before that.` });
      // Less than a minute cannot be told from two times on the wall.
      return { is_going: false, seconds: Math.max(30, seconds) };
    },
  );
}
