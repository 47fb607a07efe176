import { z } from 'zod';
import { longDate } from '../calendar/iso-date';
import { checkAnswers } from '../entries/forms/form';
import { readData } from '../measures/measure';
import { counted } from '../words/counting';
import { id, instant, text, toldOf } from './columns';
import { type RecordTable, type RecordTables, recordTableNames, recordTables } from './tables';

export const RECORD_FORMAT = 'gentle-margin student record';
/** Counts the shapes of it. One that reads a later version than its own refuses; what an earlier one lacks is said in docs/formats.md. */
export const RECORD_VERSION = 1;
/** Where it stands in its archive. */
export const RECORD_FILE = 'record.json';

const tables = z.object(
  Object.fromEntries(recordTableNames.map((name) => [name, z.array(recordTables[name])])) as {
    [T in RecordTable]: z.ZodArray<RecordTables[T]>;
  },
);
export type TablesOfRecord = z.output<typeof tables>;
export type RowOf<T extends RecordTable> = TablesOfRecord[T][number];

/** Everything that is held of one student. */
export const studentRecord = z.object({
  format: z.literal(RECORD_FORMAT),
  version: z.literal(RECORD_VERSION),
  madeAt: instant,
  school: z.object({ name: text, timeZone: text }),
  student: z.object({
    ...{
      id,
      firstName: text.min(1),
      lastName: text.min(1),
      shortName: text.min(1),
      initials: text.min(1),
      grade: text,
    },
    groups: z.array(text),
  }),
  /** Everybody who is named in it, by name only: nobody's account, and no address. */
  people: z.array(
    z.object({ id, name: text.min(1), shortName: text.min(1), initials: text.min(1), work: text }).strict(),
  ),
  locations: z.array(z.object({ id, name: text.min(1) })),
  tables,
});
export type StudentRecord = z.output<typeof studentRecord>;

/** The shape of a record as JSON Schema (draft 2020-12), for whoever reads one with another program. */
export function recordSchema(): object {
  const schema = z.toJSONSchema(studentRecord, { io: 'input', unrepresentable: 'any' });
  return { title: `A student’s record, version ${RECORD_VERSION}`, ...schema };
}

/** A file that is no record that can be read here; the message says why. */
export class NoRecord extends Error {}

const head = z.object({ format: z.literal(RECORD_FORMAT), version: z.number() });

/**
 * A record as it arrives, held against everything that holds within one: its shape, that each row points at rows that are in it, and that
 * what was scored and answered fits how its goal was measured and what its form asked.
 *
 * @param text  JSON
 * @throws NoRecord with where it does not fit
 */
export function readRecord(text: string): StudentRecord {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new NoRecord(`${RECORD_FILE} is damaged: it is no JSON.`);
  }
  const known = head.safeParse(raw);
  if (!known.success) throw new NoRecord(`${RECORD_FILE} is not the record of a student from this program.`);
  if (known.data.version > RECORD_VERSION) {
    throw new NoRecord('This record was made by a later version of this program. Upgrade this one first.');
  }
  const parsed = studentRecord.safeParse(raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new NoRecord(`The record does not say what it should at ${issue?.path.join(' › ')}.`);
  }
  const record = parsed.data;
  expectWhole(record);
  expectFitting(record);
  return record;
}

/** Every row points at rows of the record. */
function expectWhole({ people, locations, tables: all }: StudentRecord): void {
  const ids = new Map<string, Set<string>>([
    ['people', new Set(people.map((one) => one.id))],
    ['locations', new Set(locations.map((one) => one.id))],
  ]);
  for (const name of recordTableNames) {
    const rows = all[name] as { id?: string }[];
    ids.set(name, new Set(rows.flatMap((row) => row.id ?? [])));
  }
  for (const name of recordTableNames) {
    const pointing = Object.entries(recordTables[name].shape).flatMap(([column, schema]) => {
      const of = toldOf(schema as z.ZodType).of;
      return of ? [[column, of] as const] : [];
    });
    all[name].forEach((row, at) => {
      for (const [column, of] of pointing) {
        const value = (row as Record<string, unknown>)[column];
        if (typeof value === 'string' && !ids.get(of)?.has(value)) {
          throw new NoRecord(`The record is not whole: what ${name} › ${at} › ${column} points at is not in it.`);
        }
      }
    });
  }
}

/** What was scored and answered is what its measure or form takes. */
function expectFitting({ tables: { entries, goal_measures, form_versions } }: StudentRecord): void {
  const measures = new Map(goal_measures.map((one) => [`${one.goal_id} ${one.version}`, one.measure]));
  const forms = new Map(form_versions.map((one) => [`${one.form_id} ${one.version}`, one.questions]));
  entries.forEach((entry, at) => {
    if (entry.data !== null) {
      const measure = measures.get(`${entry.goal_id} ${entry.measure_version}`);
      if (!measure || !readData(measure, entry.data).ok) {
        throw new NoRecord(`What entries › ${at} says does not fit how its goal was measured.`);
      }
    }
    if (entry.answers !== null) {
      const questions = forms.get(`${entry.form_id} ${entry.form_version}`);
      if (!questions || Object.keys(checkAnswers(questions, entry.answers, true).messages).length > 0) {
        throw new NoRecord(`What entries › ${at} says does not fit what its form asks.`);
      }
    }
  });
}

/** What stands in a record, in brief, for whoever is about to read it in: each with its number. */
export function recordInBrief({ tables: all, people }: StudentRecord): string[] {
  const days = all.entries.map(({ observed_on }) => observed_on).sort();
  const stretch = days.length > 0 ? ` from ${longDate(days[0] ?? '')} to ${longDate(days.at(-1) ?? '')}` : '';
  return [
    counted(all.plans.length, 'plan', 'plans'),
    counted(all.goals.length, 'goal', 'goals'),
    `${counted(all.entries.length, 'entry', 'entries')}${stretch}`,
    counted(all.issued_reports.length, 'issued progress report', 'issued progress reports'),
    counted(all.evidence.length + all.work_sample_files.length, 'file', 'files'),
    counted(all.comments.length, 'comment', 'comments'),
    counted(all.access_log.length, 'line of the access log', 'lines of the access log'),
    `${counted(people.length, 'person', 'people')}, by name only`,
  ];
}
