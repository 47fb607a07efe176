import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { type IsoDate, longDate } from '../calendar/iso-date';
import { counted } from '../words/counting';
import { grades, readGrade, unknownGrade } from './grade';

/** What becomes of the students of a grade, of a group. */
export const LEAVES = 'leaves';
export const STAYS = 'stays';

/** What a school says of its new year; nothing of it is done before it was seen. */
export const newYearInput = z
  .object({
    grades: z
      .array(
        z.object({
          from: z.string().max(30),
          /** The grade's next name, where they do not leave. */
          to: z
            .string()
            .trim()
            .max(30)
            .transform((text) => readGrade(text) ?? text)
            .default(''),
          leaves: z.boolean().default(false),
        }),
      )
      .max(60)
      .default([]),
    /** Of each group: whether its students stay in it, leave it, or go on to another. */
    groups: z
      .array(z.object({ id: z.uuid(), to: z.union([z.enum([STAYS, LEAVES]), z.uuid()]) }))
      .max(100)
      .default([]),
    /** The last day on teams for all but case managers; blank where teams go on. */
    teamsUntil: isoDateField.optional(),
    /** Reporting periods for every plan that reaches over their ends. */
    periods: z
      .array(
        z.object({
          label: z
            .string({ error: 'Say what it is called.' })
            .trim()
            .min(1, { error: 'Say what it is called.' })
            .max(60),
          endsOn: isoDateField,
        }),
      )
      .max(12, { error: 'At most 12 periods.' })
      .default([]),
  })
  .superRefine(({ grades: changed, periods }, context) => {
    const refuse = (message: string, path: (string | number)[]) =>
      context.addIssue({ code: 'custom', message, path, input: path });
    for (const [at, { to, leaves }] of changed.entries()) {
      if (to === '' && !leaves) refuse('Type the next grade, or say that they leave.', ['grades', at, 'to']);
      else if (!leaves && readGrade(to) === null) refuse(unknownGrade, ['grades', at, 'to']);
    }
    for (const [at, { endsOn }] of periods.entries()) {
      if (periods.findIndex((one) => one.endsOn === endsOn) < at) {
        refuse('Another period ends on that day.', ['periods', at, 'endsOn']);
      }
    }
  });
export type NewYearInput = z.infer<typeof newYearInput>;

/**
 * The grade after one (common practice in the United States); null after the last, where they leave, and '' where it is asked: of who is
 * in none.
 *
 * @example nextGrade('Grade 4') // 'Grade 5'
 * @example nextGrade('KG') // 'Grade 1'
 * @example nextGrade('Ungraded') // ''
 */
export function nextGrade(grade: string): string | null {
  const known = readGrade(grade);
  if (known === null || known === 'Ungraded') return '';
  if (known === 'Grade 12' || known === '13+') return null;
  return grades[grades.indexOf(known) + 1] ?? null;
}

interface RosterStudent {
  id: string;
  name: string;
  grade: string;
  groupIds: readonly string[];
}

/** Of whom and what a new year is. */
export interface NewYearFacts {
  students: readonly RosterStudent[];
  groups: readonly { id: string; name: string }[];
  /** Places on teams, but for case managers, that would end with a day. */
  stays: readonly { id: string; personName: string }[];
  /** By the end of a period: plans that reach over it and have no period that ends there. */
  plansWithout: ReadonlyMap<IsoDate, number>;
}

/** What one student becomes. */
interface Move {
  id: string;
  /** Null where the student leaves. */
  grade: string | null;
  groupIds: string[];
}

export interface NewYearPlan {
  /** Only students of whom something changes. */
  moves: Move[];
  /** All that it will do, a sentence each, for whoever is about to say so. */
  sentences: string[];
  /** What was asked for and comes to nothing. */
  remarks: string[];
}

const students = (n: number) => counted(n, 'student', 'students');

/** What a new year will do, before it does it. */
export function newYearPlan(facts: NewYearFacts, input: NewYearInput): NewYearPlan {
  const gradeOf = new Map(input.grades.map((one) => [one.from, one.leaves ? null : one.to]));
  const groupOf = new Map(input.groups.map((one) => [one.id, one.to]));
  const nameOf = new Map(facts.groups.map(({ id, name }) => [id, name]));
  const moves = facts.students.flatMap((student): Move[] => {
    const grade = gradeOf.has(student.grade) ? (gradeOf.get(student.grade) ?? null) : student.grade;
    // Who leaves the school stays in what they were in: it tells later where they were.
    const groupIds = grade === null ? [...student.groupIds] : groupsAfter(student.groupIds, groupOf);
    const isSame = grade === student.grade && groupIds.join() === student.groupIds.join();
    return isSame ? [] : [{ id: student.id, grade, groupIds }];
  });
  const before = new Map(facts.students.map((one) => [one.id, one]));
  const stay = moves.filter(({ grade }) => grade !== null);
  const leave = moves.filter(({ grade }) => grade === null);
  const sentences: string[] = [];
  const remarks: string[] = [];
  for (const { from, to } of input.grades) {
    const n = stay.filter(({ id, grade }) => before.get(id)?.grade === from && grade !== from).length;
    if (n > 0) sentences.push(`${students(n)} of ${from}: ${to}.`);
  }
  if (leave.length > 0) {
    const names = leave.map(({ id }) => before.get(id)?.name ?? '').join(', ');
    sentences.push(
      `${students(leave.length)} ${leave.length === 1 ? 'leaves and is' : 'leave and are'} archived: ${names}.`,
    );
  }
  for (const { id, to } of input.groups) {
    const n = stay.filter((one) => before.get(one.id)?.groupIds.includes(id) && !one.groupIds.includes(id)).length;
    if (n === 0) continue;
    const name = nameOf.get(id) ?? '';
    sentences.push(
      to === LEAVES ? `${students(n)}: out of ${name}.` : `${students(n)}: from ${name} to ${nameOf.get(to) ?? ''}.`,
    );
  }
  if (input.teamsUntil && facts.stays.length > 0) {
    const people = new Set(facts.stays.map(({ personName }) => personName)).size;
    const places = counted(facts.stays.length, 'place', 'places');
    sentences.push(
      `${places} of ${counted(people, 'person', 'people')} on teams end on ${longDate(input.teamsUntil)}; case managers stay.`,
    );
  }
  for (const { label, endsOn } of input.periods) {
    const n = facts.plansWithout.get(endsOn) ?? 0;
    if (n > 0)
      sentences.push(`${counted(n, 'plan gets', 'plans get')} the reporting period ${label}, to ${longDate(endsOn)}.`);
    else
      remarks.push(
        `No plan gets the reporting period ${label}, to ${longDate(endsOn)}: each has it already, or does not reach that day.`,
      );
  }
  return { moves, sentences, remarks };
}

function groupsAfter(groupIds: readonly string[], groupOf: ReadonlyMap<string, string>): string[] {
  const after = groupIds.flatMap((id) => {
    const to = groupOf.get(id) ?? STAYS;
    if (to === LEAVES) return [];
    return to === STAYS ? [id] : [to];
  });
  return [...new Set(after)];
}
