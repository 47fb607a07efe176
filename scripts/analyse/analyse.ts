// npm run --silent analyse -- series|abc|agreement FILE.csv: the computation without the interface. docs/analyse.md says it all.
import { readFileSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { agreementKinds } from '~/core/analyse/analyse-agreement';
import { isoDateField } from '~/core/calendar/date-fields';
import { analyseAbcFile, analyseAgreementFile, analyseSeriesFile } from './files';
import { Malformed, textOf } from './table';

const USAGE = `Usage: npm run --silent analyse -- series FILE.csv [--direction increase|decrease] [--target N --target-date D]
         [--baseline N] [--baseline-date D] [--criterion K/N] [--today D]
       npm run --silent analyse -- abc FILE.csv [--from D] [--to D] [--closures D,D..D]
       npm run --silent analyse -- agreement FILE.csv --kind ${agreementKinds.join('|')}`;

class Misused extends Error {}

const number = z.coerce.number({ error: 'must be a number' }).refine(Number.isFinite).nullable().default(null);
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
  today: date,
};
const seriesOptions = z
  .strictObject(seriesFields)
  .transform(({ 'target-date': targetDate, 'baseline-date': baselineDate, ...rest }) => ({
    ...rest,
    targetDate,
    baselineDate,
  }));
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
const abcOptions = z.strictObject({ from: date, to: date, closures });
const agreementOptions = z.strictObject({
  kind: z.enum(agreementKinds, { error: `is one of ${agreementKinds.join(', ')}` }),
});

function optionsOf<T>(schema: z.ZodType<T>, values: object): T {
  const parsed = schema.safeParse(values);
  if (parsed.success) return parsed.data;
  const { path, message } = parsed.error.issues[0] as z.core.$ZodIssue;
  throw new Misused(path.length === 0 ? message : `--${path.join('.')} ${message}`);
}

const names = [seriesFields, abcOptions.shape, agreementOptions.shape].flatMap((fields) => Object.keys(fields));

/** The file that is read, for what is said of it. */
let file = '';

function analyse(args: string[]): object {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: Object.fromEntries(names.map((name) => [name, { type: 'string' as const }])),
  });
  const [what, path, ...more] = positionals;
  file = path ?? '';
  if (!what || !path || more.length > 0) throw new Misused('Say what to analyse, and one file.');
  const text = () => textOf(readFileSync(resolve(process.env.INIT_CWD ?? '.', path)));
  if (what === 'series') {
    const options = optionsOf(seriesOptions, values);
    return analyseSeriesFile(text(), options);
  }
  if (what === 'abc') {
    const options = optionsOf(abcOptions, values);
    return analyseAbcFile(text(), options);
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
