import { v4 as newId } from 'uuid';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { SchoolCalendar } from '~/core/calendar/school-days';
import { wallTime } from '~/core/calendar/zone';
import type { EntryFacts } from '~/core/rules/facts';
import { dueAfter } from '~/core/rules/follow-up';
import { fulfils } from '~/core/rules/fulfils';
import { completing, isCounted, windowStart } from '~/core/rules/often';
import type { ForWhom, RuleTrigger } from '~/core/rules/rule';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { School } from '../school/school';
import { readStudent } from '../students/access';
import { factsOf } from './facts';
import { type ReachingRule, rulesReaching } from './rules';

/** Looks that are settled in one transaction. */
const AT_ONCE = 500;

/** Something that fulfilled a rule, and that is to be said once. */
export interface Firing {
  rule: ReachingRule;
  studentId: string;
  /** What makes it the same: the entry, the goal and the day. */
  key: string;
  entryId: string | null;
  goalId: string | null;
}

const lookRow = z.object({
  seq: z.coerce.number(),
  studentId: readStudent,
  entryId: z.string().nullable(),
  stateId: z.string().nullable(),
  recordedAt: z.date(),
});

/**
 * Does what follows from the rules for whatever was recorded or changed since: follow-ups, and who is to have a message. For the worker.
 * Only from rules that were on when it was recorded, and once for each entry, however often it is corrected or sent again.
 *
 * @returns whether there may be more
 */
export async function applyRules(db: Database, school: School, now: Date): Promise<boolean> {
  return db.transaction(async (trx) => {
    const looks = await rowsOf(
      trx,
      lookRow,
      `select l.seq, l.student_id as "studentId", l.entry_id as "entryId", l.state_id as "stateId",
              coalesce(e.recorded_at, w.received_at) as "recordedAt"
         from rule_looks l join students s on s.id = l.student_id
         left join entries e on e.id = l.entry_id left join work_states w on w.id = l.state_id
        where s.school_id = :schoolId and s.archived_at is null order by l.seq limit :atOnce for update of l skip locked`,
      { schoolId: school.id, atOnce: AT_ONCE },
    );
    if (looks.length === 0) return false;
    const today = wallTime(now, school.timeZone).on;
    const students = [...new Set(looks.map(({ studentId }) => studentId))];
    const rules = (await rulesReaching(trx, school.id, students, today)).filter(
      ({ rule: { does } }) => does.followUp !== null || does.message !== null,
    );
    if (rules.length > 0) {
      const recorded = new Map(looks.map((look) => [look.entryId ?? look.stateId, look.recordedAt]));
      const ids = looks.flatMap(({ entryId }) => entryId ?? []);
      const triggers = new Set(rules.map(({ rule }) => rule.when.trigger));
      const facts = await factsOf(trx, students, triggers, { ids });
      const isNew = (rule: ReachingRule, id: string) => (recorded.get(id) ?? now) >= rule.onSince;
      const firings: Firing[] = [];
      for (const rule of rules) {
        for (const one of facts) {
          if (rule.reaches.has(one.studentId) && isNew(rule, one.entryId) && fulfils(rule.rule.when, one))
            firings.push(firingOf(rule, one));
        }
        if (rule.rule.when.trigger === 'stuck') {
          for (const { studentId, stateId } of looks) {
            if (stateId && rule.reaches.has(studentId) && isNew(rule, stateId))
              firings.push({ rule, studentId, key: `state:${stateId}`, entryId: null, goalId: null });
          }
        }
      }
      firings.push(...(await oftenFirings(trx, rules, facts, { isNew, calendar: school.calendar })));
      await fire(trx, firings, { today, calendar: school.calendar, now });
    }
    await trx('rule_looks')
      .whereIn(
        'seq',
        looks.map(({ seq }) => String(seq)),
      )
      .delete();
    return looks.length === AT_ONCE;
  });
}

const firingOf = (rule: ReachingRule, { entryId, studentId }: EntryFacts): Firing => ({
  ...{ rule, studentId, key: `entry:${entryId}`, entryId },
  goalId: null,
});

interface OftenAround {
  isNew: (rule: ReachingRule, entryId: string) => boolean;
  calendar: SchoolCalendar;
}

/** Entries that completed so many times in so many school days. */
async function oftenFirings(
  db: Database,
  rules: readonly ReachingRule[],
  facts: readonly EntryFacts[],
  { isNew, calendar }: OftenAround,
): Promise<Firing[]> {
  const firings: Firing[] = [];
  for (const rule of rules) {
    const { when } = rule.rule;
    if (when.trigger !== 'often') continue;
    const arrived = facts.filter(
      (one) => rule.reaches.has(one.studentId) && isNew(rule, one.entryId) && isCounted(when, one),
    );
    for (const studentId of new Set(arrived.map((one) => one.studentId))) {
      const own = arrived.filter((one) => one.studentId === studentId);
      // They come oldest first.
      const from = windowStart(own[0]?.on ?? '', when.days, calendar);
      const student = readStudent.parse(studentId);
      const all = await factsOf(db, [student], new Set<RuleTrigger>(['often']), { from });
      const saidOn: string[] = await db('rule_firings as f')
        .join('entries as e', 'e.id', 'f.entry_id')
        .where({ 'f.rule_id': rule.id, 'f.student_id': studentId })
        .pluck('e.observed_on');
      const isArrived = new Set(own.map(({ entryId }) => entryId));
      for (const one of completing(when, all, calendar, saidOn)) {
        if (isArrived.has(one.entryId)) firings.push(firingOf(rule, one));
      }
    }
  }
  return firings;
}

interface FireAround {
  today: IsoDate;
  calendar: SchoolCalendar;
  now: Date;
}

/** Writes down what fulfilled rules, and makes the follow-ups of those that were not there yet. */
export async function fire(
  db: Database,
  firings: readonly Firing[],
  { today, calendar, now }: FireAround,
): Promise<number> {
  if (firings.length === 0) return 0;
  const team = await teamsOf(db, [...new Set(firings.map(({ studentId }) => studentId))], today);
  const recorders = await recordersOf(
    db,
    firings.flatMap(({ entryId }) => entryId ?? []),
  );
  let made = 0;
  for (const { rule, studentId, key, entryId, goalId } of firings) {
    const { followUp, message } = rule.rule.does;
    const whom = (forWhom: ForWhom) =>
      personFor(forWhom, team.get(studentId) ?? [], rule, entryId && recorders.get(entryId));
    const [firing] = await db('rule_firings')
      .insert({
        ...{ id: newId(), rule_id: rule.id, version: rule.version, student_id: studentId, key },
        ...{ entry_id: entryId, goal_id: goalId, at: now, tell: message && whom(message.forWhom) },
      })
      .onConflict(['rule_id', 'student_id', 'key'])
      .ignore()
      .returning('id');
    if (!firing) continue;
    made++;
    if (!followUp) continue;
    await db('follow_ups').insert({
      ...{ id: newId(), student_id: studentId, entry_id: entryId, firing_id: firing.id, what: followUp.what },
      ...{ for_person: whom(followUp.forWhom), due_on: dueAfter(today, followUp.inDays, calendar), made_at: now },
    });
  }
  return made;
}

interface OnTeam {
  personId: string;
  role: string;
}

/** Who it is for: who was meant while they are on the team, else the case manager; while there is none, who made the rule. */
function personFor(
  forWhom: ForWhom,
  team: readonly OnTeam[],
  rule: ReachingRule,
  recorder: string | null | undefined,
): string {
  const meant = forWhom === 'maker' ? rule.madeBy : forWhom === 'recorder' ? recorder : forWhom;
  const found = team.find(({ personId }) => personId === meant) ?? team.find(({ role }) => role === 'caseManager');
  return found?.personId ?? rule.madeBy;
}

async function teamsOf(db: Database, studentIds: readonly string[], today: IsoDate): Promise<Map<string, OnTeam[]>> {
  const rows = await db('team_members')
    .whereIn('student_id', [...studentIds])
    .where('from_date', '<=', today)
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .orderBy('from_date', 'desc')
    .select('student_id', 'person_id', 'role');
  const all = new Map<string, OnTeam[]>(studentIds.map((id) => [id, []]));
  for (const { student_id, person_id, role } of rows) all.get(student_id)?.push({ personId: person_id, role });
  return all;
}

async function recordersOf(db: Database, entryIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await db('entries')
    .whereIn('id', [...entryIds])
    .select('id', 'recorded_by');
  return new Map(rows.map(({ id, recorded_by }) => [id, recorded_by]));
}
