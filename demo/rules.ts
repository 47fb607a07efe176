import { v5 as idFrom } from 'uuid';
import { addDays } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import type { Rule, RuleScope } from '~/core/rules/rule';
import { shippedRules } from '~/core/rules/shipped';
import type { Database } from '~/server/platform/db/database';
import { existing } from '~/server/platform/failures';
import { changeFollowUp, makeFollowUp } from '~/server/rules/follow-ups';
import { saveRule } from '~/server/rules/rules';
import { timeZone } from './school';

/** Ids that are the same in every demo. */
const SPACE = '6f0f6a1c-98f1-4c6a-9d7b-64c8e4a1d003';
const id = (...of: string[]) => idFrom(of.join(' '), SPACE);
const DAY = 24 * 3_600_000;

const shipped = (key: string): Rule => existing(shippedRules.find((one) => one.key === key)).rule;

/** A few rules of the first case manager, and what is to be done. */
export async function setRules(db: Database, now: Date): Promise<void> {
  const people = await db('people').whereNotNull('demo_order').select('id', 'demo_order');
  const students = await db('students').select('id', 'first_name', 'school_id');
  const person = (order: number) => existing(people.find((one) => one.demo_order === order)).id;
  const student = (name: string) => existing(students.find((one) => one.first_name === name));
  const today = wallTime(now, timeZone).on;
  const hanneke = { personId: person(1), schoolId: student('Briar').school_id, today };
  const rules: [name: string, scope: RuleScope, rule: Rule][] = [
    ['Low: Briar', { of: 'student', studentId: student('Briar').id }, shipped('low-figure')],
    ['Long, or not resolved', { of: 'mine' }, shipped('long-incident')],
    ['A goal without data', { of: 'mine' }, shipped('quiet-goal')],
  ];
  for (const [name, scope, rule] of rules) {
    await saveRule(db, hanneke, { id: id('rule', name), name, scope, rule, mayTellOften: false }, now);
  }
  const followUps: [student: string, what: string, dueIn: number][] = [
    ['Briar', 'Try the ruler with raised marks', -2],
    ['Casimir', 'Ask his aunt how mornings go', -1],
    ['Ansel', 'Copy the picture card for the kitchen', 3],
    ['Ansel', 'Show Noor how the prompts are faded', -4],
  ];
  for (const [name, what, dueIn] of followUps) {
    const input = {
      ...{ id: id('follow-up', what), studentId: student(name).id, entryId: null, what, inReport: false },
      ...{ forPerson: hanneke.personId, dueOn: addDays(today, dueIn) },
    };
    await makeFollowUp(db, hanneke, input, new Date(now.getTime() - 6 * DAY));
  }
  const done = { what: 'done', word: 'We tried it together in the workshop.', version: 1 } as const;
  await changeFollowUp(db, hanneke, id('follow-up', 'Show Noor how the prompts are faded'), done, now);
}
