import { z } from 'zod';
import { clockTimeField, isoDateField } from '../calendar/date-fields';
import { timetableDefinition } from '../calendar/timetable';
import { isTimeZone } from '../calendar/zone';
import { pageSizes } from './page-size';
import { ownStepWords } from './step-words';

const nameField = (message: string) => z.string({ error: message }).trim().min(1, { error: message }).max(60);

/** A group or a place: renamed, it stays the same. */
const renamable = z.object({ id: z.uuid(), name: nameField('Type a name.') });

/** A part of the day as people set it up: the same hours on some weekdays. */
const dayPart = z.object({
  /** Null: for the whole school. */
  groupId: z.uuid().nullable().default(null),
  part: nameField('Type what this part of the day is called.'),
  weekdays: z.array(z.coerce.number().int().min(1).max(7)).min(1, { error: 'Choose a weekday.' }),
  from: clockTimeField,
  to: clockTimeField,
  locationId: z.uuid().nullable().default(null),
});
export type DayPart = z.infer<typeof dayPart>;

/** One student’s own part of the day. */
const ownDayPart = dayPart.omit({ groupId: true });
export type OwnDayPart = z.infer<typeof ownDayPart>;

/** A student’s own parts of the day; they stand before those of the group and the school. */
export const ownTimetableInput = z
  .object({ dayParts: z.array(ownDayPart).max(60).default([]) })
  .superRefine(({ dayParts }, context) =>
    checkTimetable(
      dayParts.map((part) => ({ ...part, groupId: null })),
      (message, path) => context.addIssue({ code: 'custom', message, path, input: path }),
    ),
  );
export type OwnTimetableInput = z.infer<typeof ownTimetableInput>;

const idleMinutes = z
  .number({ error: 'Type a number of minutes.' })
  .int({ error: 'Type whole minutes.' })
  .min(5, { error: 'At least 5 minutes.' })
  .max(1440, { error: 'At most a day, 1,440 minutes.' });

/** After how many minutes a device that nobody uses locks itself; blank where it does not. */
const lockMinutes = z
  .number({ error: 'Type a number of minutes, or nothing.' })
  .int({ error: 'Type whole minutes.' })
  .min(1, { error: 'At least 1 minute.' })
  .max(60, { error: 'At most 60 minutes.' })
  .nullable();

/** How many days a device may keep what it needs without network; 0 keeps nothing. */
const daysOnDevices = z
  .number({ error: 'Type a number of days, or 0 to keep nothing.' })
  .int({ error: 'Type whole days.' })
  .min(0, { error: 'Type 0 to keep nothing.' })
  .max(30, { error: 'At most 30 days.' });

/** The school as an administrator sees it: its calendar, groups, places and timetable. */
export const schoolInput = z
  .object({
    name: nameField('Type the school’s name.'),
    timeZone: z.string().refine(isTimeZone, { error: 'Choose a time zone from the list.' }),
    weekdays: z
      .array(z.coerce.number().int().min(1).max(7), { error: 'A school needs a school day.' })
      .min(1, { error: 'A school needs a school day.' }),
    /** Minutes after which a sign-in that nobody uses ends: on a tablet that others use too, and elsewhere. */
    sharedIdleMinutes: idleMinutes.default(60),
    idleMinutes: idleMinutes.default(720),
    daysOnDevices: daysOnDevices.default(7),
    lockMinutes: lockMinutes.default(null),
    paper: z.enum(pageSizes).default('letter'),
    /** Whether whoever shares reports, or administers, types a code beside the password. */
    asksSecondFactor: z.boolean().default(false),
    stepWords: ownStepWords.default(ownStepWords.parse({})),
    closures: z
      .array(z.object({ first: isoDateField, last: isoDateField, label: nameField('Say what it is.') }))
      .max(100)
      .default([]),
    groups: z.array(renamable).max(100).default([]),
    locations: z.array(renamable).max(100).default([]),
    dayParts: z.array(dayPart).max(200).default([]),
  })
  .superRefine(({ closures, groups, locations, dayParts }, context) => {
    const refuse = (message: string, path: (string | number)[]) =>
      context.addIssue({ code: 'custom', message, path, input: path });
    for (const [i, { first, last }] of closures.entries()) {
      if (last < first) refuse('The last day cannot lie before the first.', ['closures', i, 'last']);
    }
    for (const [field, list] of [
      ['groups', groups],
      ['locations', locations],
    ] as const) {
      const names = list.map(({ name }) => name.toLowerCase());
      for (const [i, name] of names.entries()) {
        if (names.indexOf(name) < i) refuse('There is another with this name.', [field, i, 'name']);
      }
    }
    checkTimetable(dayParts, refuse);
  });
export type SchoolInput = z.infer<typeof schoolInput>;

/** Each group's week is held against the rule that no part of the day lies over another. */
function checkTimetable(dayParts: readonly DayPart[], refuse: (message: string, path: (string | number)[]) => void) {
  for (const groupId of new Set(dayParts.map((part) => part.groupId))) {
    const rows = dayParts.flatMap((part, row) => (part.groupId === groupId ? [{ part, row }] : []));
    const blocks = rows.flatMap(({ part, row }) =>
      part.weekdays.map((weekday) => ({ block: { weekday, part: part.part, from: part.from, to: part.to }, row })),
    );
    const parsed = timetableDefinition.safeParse(blocks.map(({ block }) => block));
    for (const { message, path } of parsed.error?.issues ?? []) {
      const row = blocks[Number(path[0])]?.row;
      if (row !== undefined) refuse(message, ['dayParts', row, path[1] === 'to' ? 'to' : 'from']);
    }
  }
}
