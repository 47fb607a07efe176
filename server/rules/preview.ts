import type { IsoDate } from '~/core/calendar/iso-date';
import type { SchoolCalendar } from '~/core/calendar/school-days';
import { fulfils } from '~/core/rules/fulfils';
import { completing, isCounted, windowStart } from '~/core/rules/often';
import { isToldOfPast, type Rule, type RuleScope } from '~/core/rules/rule';
import type { Database } from '../platform/db/database';
import type { Actor } from '../school/school';
import { can } from '../students/rights';
import { type Student, studentsOf } from '../students/students';
import { factsOf } from './facts';

/** Of so many school days it is said what a rule would have done. */
export const PREVIEW_DAYS = 20;

/** What a rule would have done. */
export interface Preview {
  from: IsoDate;
  students: number;
  /** Entries that it looks at: of goals, incidents, counts, answers. */
  looked: number;
  /** Those that fulfil it, the newest first. */
  found: { entryId: string; studentId: string; on: IsoDate }[];
}

/** The students whom a rule of this person reaches, as far as they see them. */
async function studentsIn(db: Database, actor: Actor, scope: RuleScope): Promise<Student<'see'>[]> {
  const seen = await studentsOf(db, actor);
  if (scope.of === 'school') return seen;
  const edited = seen.filter((student) => can(student, 'editGoals'));
  if (scope.of === 'student') return edited.filter(({ id }) => id === scope.studentId);
  if (scope.of === 'mine') return edited;
  const members = new Set(await db('student_groups').where({ group_id: scope.groupId }).pluck('student_id'));
  return edited.filter(({ id }) => members.has(id));
}

/**
 * What a rule would have done in the last school days, before it is saved: of the students whom the one who asks may see. Of triggers
 * that are no entry (quiet goals, decisions, being stuck) nothing is told of the past; `looked` is 0.
 */
export async function previewOf(
  db: Database,
  actor: Actor,
  { rule, scope }: { rule: Pick<Rule, 'when'>; scope: RuleScope },
  calendar: SchoolCalendar,
  days = PREVIEW_DAYS,
): Promise<Preview> {
  const from = windowStart(actor.today, days, calendar);
  const students = await studentsIn(db, actor, scope);
  const ids = students.map(({ id }) => id);
  const none = { from, students: ids.length, looked: 0, found: [] };
  const { when } = rule;
  if (ids.length === 0 || !isToldOfPast(when.trigger)) return none;
  const begins = when.trigger === 'often' ? windowStart(from, when.days, calendar) : from;
  const facts = await factsOf(db, ids, new Set([when.trigger]), { from: begins });
  const within = facts.filter(({ on }) => on >= from && on <= actor.today);
  if (when.trigger !== 'often') {
    const found = within.filter((one) => fulfils(when, one));
    return { ...none, looked: within.length, found: found.reverse() };
  }
  const found = ids.flatMap((id) =>
    completing(
      when,
      facts.filter(({ studentId }) => studentId === id),
      calendar,
    ),
  );
  return {
    ...none,
    looked: within.filter((one) => isCounted(when, one)).length,
    found: found.filter(({ on }) => on >= from).sort((a, b) => (a.on < b.on ? 1 : -1)),
  };
}

/** More messages in those school days than that, and it is asked whether it is meant. */
const OFTEN = 40;

/** How many messages a rule would have sent, where that is more than is sent without asking; else null. */
export async function tellsOften(
  db: Database,
  actor: Actor,
  wanted: { rule: Rule; scope: RuleScope },
  calendar: SchoolCalendar,
): Promise<number | null> {
  if (!wanted.rule.does.message) return null;
  const { found } = await previewOf(db, actor, wanted, calendar);
  return found.length > OFTEN ? found.length : null;
}
