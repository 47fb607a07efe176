import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { type WallTime, wallTime } from '~/core/calendar/zone';
import { canBeLogged, checkLog, type DeskShows, deskShows, type LogSaid } from '~/core/desk/log';
import type { MeasureData } from '~/core/measures/measure';
import { CHANGED_BY_STUDENT } from '../entries/corrections';
import { type Goal, goalsOf } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { tellLive } from '../platform/live';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';

const deskGoalRow = z.object({
  goalId: z.string(),
  shows: z.enum(deskShows),
  plain: z.string(),
  selfCounts: z.boolean(),
});

/** A goal with what it shows at the student's desk, and in which words. */
export interface DeskGoal {
  goal: Goal;
  shows: DeskShows;
  /** What it is called there; what it is called anyway, where nothing was said. */
  plain: string;
  selfCounts: boolean;
}

/** The goals that are worked on, each with what it shows at the desk. */
export async function deskGoals(db: Database, studentId: StudentAccess<'read'>): Promise<DeskGoal[]> {
  const found = await rowsOf(
    db,
    deskGoalRow,
    `select goal_id as "goalId", shows, plain, self_counts as "selfCounts" from desk_goals where student_id = ?`,
    [studentId],
  );
  const byGoal = new Map(found.map(({ goalId, ...rest }) => [goalId, rest]));
  const goals = (await goalsOf(db, [studentId])).filter(({ retired }) => retired === null);
  return goals.map((goal) => ({
    goal,
    ...(byGoal.get(goal.id) ?? { shows: 'nothing' as const, plain: '', selfCounts: true }),
  }));
}

/** What of a goal the desk is told to show. */
export type DeskChoice = z.infer<typeof deskGoalRow>;

/**
 * Says what each goal shows at the student's desk, and whether what they enter makes its figures.
 *
 * @throws NotFound for who may not share the student's report, and for a goal that is not theirs; Invalid for a log that cannot be kept
 */
export async function saveDeskGoals(
  db: Database,
  actor: Actor,
  studentId: string,
  choices: readonly DeskChoice[],
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const student = await requireStudent(trx, actor, studentId, 'share');
    const before = new Map((await deskGoals(trx, student.id)).map((one) => [one.goal.id, one]));
    for (const { goalId, ...choice } of choices) {
      const had = before.get(goalId);
      if (!had) throw new NotFound('No such goal.');
      if (choice.shows === 'log' && !canBeLogged(had.goal.measure)) {
        throw new Invalid({ [goalId]: 'A log takes amounts or measurements only.' });
      }
      const columns = { shows: choice.shows, plain: choice.plain, self_counts: choice.selfCounts };
      await trx('desk_goals')
        .insert({ goal_id: goalId, student_id: student.id, ...columns })
        .onConflict('goal_id')
        .merge(columns);
      const said = ({ shows, plain, selfCounts }: Omit<DeskChoice, 'goalId'>) => ({
        ...{ goal: had.goal.number, desk: shows, words: plain, 'entries count': selfCounts ? 'yes' : 'no' },
      });
      const change = { what: 'visibility' as const, studentId: student.id };
      await writeChange(trx, actor.personId, { ...change, before: said(had), after: said(choice) }, now);
    }
  });
}

const ownEntryRow = z.object({
  id: z.string(),
  on: z.string(),
  data: written<MeasureData>(),
  note: z.string(),
  recordedAt: z.date(),
});
/** Something that the student entered in their log. */
export type OwnEntry = z.infer<typeof ownEntryRow>;

/** What a student entered of one goal since a day, newest first. */
export async function ownEntries(
  db: Database,
  studentId: StudentAccess<'read'>,
  goalId: string,
  since: IsoDate,
): Promise<OwnEntry[]> {
  return rowsOf(
    db,
    ownEntryRow,
    `select id, observed_on as "on", data, note, recorded_at as "recordedAt" from entries
      where student_id = :studentId and goal_id = :goalId and kind = 'goal' and self_recorded and not withdrawn
            and data is not null and observed_on >= :since
      order by observed_on desc, recorded_at desc limit 20`,
    { studentId, goalId, since },
  );
}

/** A day further back than this is for the teacher to enter. */
const MOST_DAYS_BACK = 14;

interface AtDesk {
  studentId: StudentAccess<'read'>;
  cardId: string;
}

/**
 * Keeps what a student enters in their log, marked as theirs. Sent again alike it changes nothing; sent again otherwise on the day on which it
 * was entered, it is corrected, and its history stays.
 *
 * @throws NotFound for a goal of which they keep no log; Invalid with a message at the field
 */
export async function saveLog(
  db: Database,
  { studentId, cardId }: AtDesk,
  said: LogSaid,
  { wall, now, timeZone }: { wall: WallTime; now: Date; timeZone: string },
): Promise<void> {
  await db.transaction(async (trx) => {
    const opened = (await deskGoals(trx, studentId)).find(({ goal }) => goal.id === said.goalId);
    const measure = opened?.goal.measure;
    if (opened?.shows !== 'log' || !measure || !canBeLogged(measure)) throw new NotFound('No such log.');
    if (said.on > wall.on) throw new Invalid({ on: 'This day is still to come.' });
    if (said.on < addDays(wall.on, -MOST_DAYS_BACK)) throw new Invalid({ on: 'Ask your teacher to enter this day.' });
    const checked = checkLog(measure, said);
    if (!checked.ok) throw new Invalid({ amount: checked.message });
    const card = await trx('cards').where({ id: cardId }).first('made_by');
    if (!card) throw new NotFound('No such card.');
    const content = { observed_on: said.on, data: JSON.stringify(checked.outcome.data), note: said.note };
    const added = await trx('entries')
      .insert({
        ...{ id: said.id, student_id: studentId, kind: 'goal', goal_id: said.goalId, self_recorded: true, ...content },
        ...{ measure_version: opened.goal.version, observed_time: wall.time },
        // Who gave the student their card answers for what comes in by it; the entry itself names the student.
        ...{ observer_id: card.made_by, recorded_by: card.made_by, recorded_at: now },
      })
      .onConflict('id')
      .ignore()
      .returning('id');
    if (added.length > 0) return;
    await changeOwn(trx, studentId, said, content, { by: card.made_by, wall, now, timeZone });
    await tellLive(trx, { studentId, what: 'entries', by: null });
  });
}

async function changeOwn(
  trx: Database,
  studentId: string,
  said: LogSaid,
  content: { observed_on: string; data: string; note: string },
  { by, wall, now, timeZone }: { by: string; wall: WallTime; now: Date; timeZone: string },
): Promise<void> {
  const before = await trx('entries')
    .where({ id: said.id, student_id: studentId, goal_id: said.goalId, self_recorded: true, withdrawn: false })
    .forUpdate()
    .first('observed_on', 'data', 'note', 'recorded_at', 'version', 'change_reason');
  if (!before) throw new NotFound('No such entry.');
  const { observed_on, data, note } = before;
  if (isDeepStrictEqual([observed_on, data, note], [content.observed_on, JSON.parse(content.data), content.note]))
    return;
  mustBeChangeable(before, wall.on, timeZone);
  await trx('entries')
    .where({ id: said.id })
    .update({
      ...content,
      ...{ version: before.version + 1, changed_by: by, changed_at: now, change_reason: CHANGED_BY_STUDENT },
    });
}

/**
 * Whether a student may still change what they entered themselves.
 *
 * @throws Invalid with why not
 */
export function mustBeChangeable(
  before: { recorded_at: Date; change_reason: string | null },
  today: IsoDate,
  timeZone: string,
): void {
  if (before.change_reason && before.change_reason !== CHANGED_BY_STUDENT) {
    throw new Invalid({ form: 'Your teacher has changed this entry. Ask them.' });
  }
  if (wallTime(before.recorded_at, timeZone).on !== today) {
    throw new Invalid({ form: 'You can change an entry on the day you made it. Ask your teacher.' });
  }
}
