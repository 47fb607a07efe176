// npm run --silent analyse -- series|latency|abc|agreement FILE.csv, or luck: the computation without the interface. docs/analyse.md says it all.
import { readFileSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { agreementKinds } from '~/core/analyse/analyse-agreement';
import { isoDateField } from '~/core/calendar/date-fields';
import { chanceMet, MOST_DAYS_OF_LUCK } from '~/core/progress/luck';
import {
  analyseAbcFile,
  analyseAgreementFile,
  analyseLatencyFile,
  analyseManySeries,
  analyseSeriesFile,
  timetableFrom,
  windowsFrom,
} from './files';
import { Malformed, textOf } from './table';

const USAGE = `Usage: npm run --silent analyse -- series FILE.csv [--direction increase|decrease] [--target N --target-date D]
         [--baseline N] [--baseline-date D] [--criterion K/N] [--comparison atLeast|atMost] [--minimum N]
         [--distinct-places N] [--distinct-observers N] [--today D]
       npm run --silent analyse -- latency FILE.csv [--limit SECONDS]
       npm run --silent analyse -- luck --k K --n N --value PERCENT --opportunities M --true PERCENT --days D
       npm run --silent analyse -- abc FILE.csv [--from D] [--to D] [--closures D,D..D] [--absences D,D..D]
         [--timetable FILE.csv] [--windows FILE.csv]
       npm run --silent analyse -- agreement FILE.csv --kind ${agreementKinds.join('|')}`;

class Misused extends Error {}

const number = z.coerce.number({ error: 'must be a number' }).refine(Number.isFinite).nullable().default(null);
const count = z.coerce
  .number({ error: 'must be a number' })
  .int({ error: 'must be a whole number' })
  .min(1, { error: 'must be 1 or more' });
const share = z.coerce
  .number({ error: 'must be a percentage' })
  .min(0, { error: 'must be 0 or more' })
  .max(100, { error: 'must be 100 or less' });
const date = isoDateField.nullable().default(null);
const seriesFields = {
  direction: z.enum(['increase', 'decrease']).nullable().default(null),
  target: number,
  'target-date': date,
  baseline: number,
  'baseline-date': date,
  criterion: z
    .string()
    .regex(/^\d{1,2}\/\d{1,2}$/, { error: 'must be two numbers such as 3/4' })
    .transform((text) => text.split('/').map(Number))
    .refine(([k, n]) => (k as number) >= 1 && (k as number) <= (n as number), {
      error: 'asks for more than it looks at',
    })
    .transform(([k, n]) => ({ k: k as number, n: n as number }))
    .nullable()
    .default(null),
  comparison: z.enum(['atLeast', 'atMost'], { error: 'is atLeast or atMost' }).nullable().default(null),
  minimum: count.default(1),
  'distinct-places': count.default(1),
  'distinct-observers': count.default(1),
  today: date,
};
const seriesOptions = z.strictObject(seriesFields).transform((read) => {
  const { 'target-date': targetDate, 'baseline-date': baselineDate, ...others } = read;
  const { 'distinct-places': distinctPlaces, 'distinct-observers': distinctObservers, ...rest } = others;
  return { ...rest, targetDate, baselineDate, distinctPlaces, distinctObservers };
});
const closures = z
  .string()
  .transform((text) => text.split(',').map((stretch) => stretch.split('..')))
  .pipe(
    z.array(z.array(isoDateField).min(1).max(2), {
      error: 'are days or stretches such as 2026-10-12,2026-11-26..2026-11-27',
    }),
  )
  .transform((list) => list.map(([first, last = first]) => ({ first: first as string, last: last as string })))
  .default([]);
const otherFile = z.string().nullable().default(null);
const abcOptions = z.strictObject({
  ...{ from: date, to: date, closures, absences: closures },
  ...{ timetable: otherFile, windows: otherFile },
});
const agreementOptions = z.strictObject({
  kind: z.enum(agreementKinds, { error: `is one of ${agreementKinds.join(', ')}` }),
});

const latencyOptions = z.strictObject({
  limit: z.coerce.number({ error: 'must be a number' }).positive().nullable().default(null),
});
const luckOptions = z
  .strictObject({
    ...{ k: count, n: count.max(MOST_DAYS_OF_LUCK, { error: `must be ${MOST_DAYS_OF_LUCK} or less` }), value: share },
    ...{ opportunities: count.max(1000, { error: 'must be 1000 or less' }), true: share, days: count.max(10_000) },
  })
  .refine(({ k, n }) => k <= n, { error: '--k asks for more days than --n looks at' });

function optionsOf<T>(schema: z.ZodType<T>, values: object): T {
  const parsed = schema.safeParse(values);
  if (parsed.success) return parsed.data;
  const { path, message } = parsed.error.issues[0] as z.core.$ZodIssue;
  throw new Misused(path.length === 0 ? message : `--${path.join('.')} ${message}`);
}

const names = [seriesFields, abcOptions.shape, agreementOptions.shape, latencyOptions.shape, luckOptions.shape].flatMap(
  (fields) => Object.keys(fields),
);

/** The file that is read, for what is said of it. */
let file = '';

function analyse(args: string[]): object {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: Object.fromEntries(names.map((name) => [name, { type: 'string' as const }])),
  });
  const [what, path, ...more] = positionals;
  if (what === 'luck' && positionals.length === 1) {
    const { true: truly, days, ...rule } = optionsOf(luckOptions, values);
    return { kind: 'luck', format: 2, chanceMet: chanceMet({ ...rule, comparison: 'atLeast' }, truly, days) };
  }
  file = path ?? '';
  if (!what || !path || more.length > 0) throw new Misused('Say what to analyse, and one file.');
  const text = () => textOf(readFileSync(resolve(process.env.INIT_CWD ?? '.', path)));
  if (what === 'series') {
    const options = optionsOf(seriesOptions, values);
    const read = text();
    return analyseManySeries(read, options) ?? analyseSeriesFile(read, options);
  }
  if (what === 'abc') {
    const { timetable, windows, ...range } = optionsOf(abcOptions, values);
    const incidents = text();
    const beside = <T>(other: string | null, from: (text: string) => T) => {
      if (other === null) return undefined;
      file = other;
      return from(textOf(readFileSync(resolve(process.env.INIT_CWD ?? '.', other))));
    };
    const read = { timetable: beside(timetable, timetableFrom), watched: beside(windows, windowsFrom) };
    file = path;
    return analyseAbcFile(incidents, { ...range, ...read });
  }
  if (what === 'latency') {
    const { limit } = optionsOf(latencyOptions, values);
    return analyseLatencyFile(text(), limit);
  }
  if (what === 'agreement') {
    const { kind } = optionsOf(agreementOptions, values);
    return analyseAgreementFile(text(), kind);
  }
  throw new Misused(`There is no analysis of “${what}”.`);
}

function sentenceFor(error: unknown): string {
  if (error instanceof Malformed)
    return `${basename(file)}, line ${error.line}, column ${error.column}: ${error.message}`;
  if (error instanceof Misused) return `${error.message}\n${USAGE}`;
  const { code, message } = error as NodeJS.ErrnoException;
  if (code === 'ENOENT') return `There is no file ${file}.`;
  if (code?.startsWith('ERR_PARSE_ARGS')) return `${message}\n${USAGE}`;
  throw error;
}

try {
  console.log(JSON.stringify(analyse(process.argv.slice(2)), null, 2));
} catch (error) {
  console.error(sentenceFor(error));
  process.exitCode = 1;
}
