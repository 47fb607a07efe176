import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { addDays, type IsoDate } from '../calendar/iso-date';

/** What becomes of a goal when the next plan begins: it goes on in it, or ends with the plan that was. */
export const nextOfGoal = ['goesOn', 'met', 'discontinued'] as const;
export type NextOfGoal = (typeof nextOfGoal)[number];

const period = z.object({
  label: z.string({ error: 'Say what the period is called.' }).trim().min(1).max(40),
  endsOn: isoDateField,
});

/** The next plan of a student, with what becomes of each goal that is worked on. */
export const nextPlanInput = z
  .object({
    id: z.uuid(),
    startsOn: isoDateField,
    endsOn: isoDateField,
    periods: z.array(period).max(12).default([]),
    goals: z
      .array(
        z.object({
          /** The goal as it stands, and the one that continues it. */
          id: z.uuid(),
          nextId: z.uuid(),
          becomes: z.enum(nextOfGoal),
          wording: z
            .string({ error: 'Type the goal as the plan words it.' })
            .transform((words) => words.replace(/\r\n?/g, '\n'))
            .refine((words) => words.trim() !== '', { error: 'Type the goal as the plan words it.' })
            .refine((words) => words.length <= 4000, { error: 'Keep the goal to 4000 characters.' }),
          target: z.number({ error: 'Type the criterion as a number.' }),
          baselineValue: z.number({ error: 'Type the baseline as a number.' }).nullable().default(null),
          baselineOn: isoDateField.nullable().default(null),
        }),
      )
      .max(60)
      .default([]),
  })
  .superRefine(({ startsOn, endsOn, periods, goals }, context) => {
    const refuse = (message: string, path: (string | number)[]) =>
      context.addIssue({ code: 'custom', message, path, input: periods });
    if (endsOn <= startsOn) refuse('The plan ends after it starts.', ['endsOn']);
    for (const [i, { endsOn: last }] of periods.entries()) {
      if (last < startsOn || last > endsOn) refuse('This lies outside of the plan.', ['periods', i, 'endsOn']);
      if (periods.findIndex((other) => other.endsOn === last) < i) {
        refuse('Another period ends on this day.', ['periods', i, 'endsOn']);
      }
    }
    for (const [i, { baselineValue, baselineOn }] of goals.entries()) {
      if (baselineValue !== null && baselineOn === null) {
        refuse('Say when the baseline was taken.', ['goals', i, 'baselineOn']);
      }
    }
  });
export type NextPlanInput = z.infer<typeof nextPlanInput>;

/** The same day a year later; the last of February where there is none. */
export function aYearLater(day: IsoDate): IsoDate {
  const later = `${Number(day.slice(0, 4)) + 1}${day.slice(4)}`;
  return day.endsWith('-02-29') ? `${Number(day.slice(0, 4)) + 1}-02-28` : later;
}

interface PlanSaid {
  startsOn: IsoDate;
  endsOn: IsoDate;
  periods: readonly { label: string; endsOn: IsoDate }[];
}

/**
 * What the next plan most likely says: it begins the day after the present one ends, or today where that is still ahead; it is as
 * long, with the same reporting periods as far as they lie in it.
 *
 * @example proposedPlan({ startsOn: '2025-09-01', endsOn: '2026-08-31', periods: [] }, '2026-09-03').startsOn // '2026-09-01'
 */
export function proposedPlan(present: PlanSaid, today: IsoDate): PlanSaid {
  const after = addDays(present.endsOn, 1);
  const startsOn = after <= today ? after : today;
  const endsOn = addDays(aYearLater(startsOn), -1);
  // Begun within a year, the rest of its periods lies in the new plan too.
  const periods = [...present.periods, ...present.periods.map((one) => ({ ...one, endsOn: aYearLater(one.endsOn) }))]
    .map(({ label, endsOn: last }) => ({ label, endsOn: last }))
    .filter(({ endsOn: last }) => last >= startsOn && last <= endsOn);
  return { startsOn, endsOn, periods };
}
