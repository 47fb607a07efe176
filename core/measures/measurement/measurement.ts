import { z } from 'zod';
import { largest, mean, smallest } from '../../statistics/spread';
import { counted, figure } from '../../words/counting';
import { totalAgreement } from '../agreement/pair';
import { type Cell, numberCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import type { MeasureKind } from '../measure-kind';
import { several } from '../measure-table';
import { noun } from '../named';
import type { BreakdownLine, Score } from '../score';

/** A goal measured by a number with a unit: centimeters, degrees, kilograms. */
export const measurementDefinition = z.object({
  kind: z.literal('measurement'),
  unit: z.string().trim().min(1, { error: 'Say the unit, such as cm.' }).max(12),
  /** Which figure stands for a session, or a day, that holds several. */
  of: z.enum(['mean', 'highest', 'lowest', 'last']).default('mean'),
  /** What one of them is called. */
  reading: noun.default({ one: 'measurement', many: 'measurements' }),
});
export type MeasurementDefinition = z.infer<typeof measurementDefinition>;

/** What was read off, in order, in the goal's unit. 0 is a figure like any other. */
export type MeasurementData = { readings: number[] };

const MOST = 1_000_000;

function measurementData({ unit, reading }: MeasurementDefinition): z.ZodType<MeasurementData> {
  return z.object({
    readings: z
      .array(
        z
          .number({ error: `Say how many ${unit} it was.` })
          .min(0, { error: 'A measurement cannot be below nothing.' })
          .max(MOST, { error: `That is more than ${MOST.toLocaleString('en-US')} ${unit}.` }),
      )
      .min(1, { error: `Note at least one ${reading.one}, or say why there is no score.` })
      .max(100, { error: `At most 100 ${reading.many} fit in one entry.` }),
  });
}

const figures: Record<MeasurementDefinition['of'], { label: string; take: (readings: readonly number[]) => number }> = {
  mean: { label: 'Mean', take: mean },
  highest: { label: 'Highest', take: largest },
  lowest: { label: 'Lowest', take: smallest },
  last: { label: 'Last', take: (readings) => readings.at(-1) ?? Number.NaN },
};

/**
 * The mean of what was read off, or the highest, lowest or last of it.
 *
 * @returns value and amount in the goal's unit, weight the number of measurements
 * @example scoreMeasurement({ of: 'mean', … }, { readings: [58, 62, 66] }) // 62
 */
export function scoreMeasurement({ of }: MeasurementDefinition, { readings }: MeasurementData): Score {
  if (readings.length === 0) return { value: null, reason: 'noOpportunity' };
  const value = figures[of].take(readings);
  return { value, amount: value, weight: readings.length };
}

const said = ({ unit }: MeasurementDefinition, value: number) => `${figure(value)} ${unit}`;

function measurementLines(definition: MeasurementDefinition, { readings }: MeasurementData): BreakdownLine[] {
  const line = (key: MeasurementDefinition['of']): BreakdownLine => {
    const value = readings.length === 0 ? null : figures[key].take(readings);
    return { key, label: figures[key].label, value, said: value === null ? 'none' : said(definition, value) };
  };
  const n = readings.length;
  return [
    { key: 'readings', label: 'Measured', value: n, said: n === 1 ? 'once' : `${n} times` },
    line('mean'),
    line('highest'),
    line('lowest'),
  ];
}

/** @example “3 jumps: mean 62 cm, from 58 cm to 66 cm.” */
export function measurementSentence(definition: MeasurementDefinition, data: MeasurementData): string {
  const { readings } = data;
  const { one, many } = definition.reading;
  const score = scoreMeasurement(definition, data);
  if (score.value === null) return `No ${one} was noted.`;
  if (readings.length === 1) return `${said(definition, score.value)}.`;
  const [low, high] = [smallest(readings), largest(readings)];
  const range = low === high ? '' : `, from ${said(definition, low)} to ${said(definition, high)}`;
  return `${readings.length} ${many}: ${definition.of} ${said(definition, score.value)}${range}.`;
}

const oneReading = (part: string): Cell<number> => {
  const read = numberCell(part);
  if (!read.ok) return read;
  return read.value === null ? { ok: false, message: 'A number, please.' } : { ok: true, value: read.value };
};

export const measurement: MeasureKind<MeasurementDefinition, MeasurementData> = {
  question: 'How high',
  term: 'measurement',
  example: 'a seed bed 24 cm deep, a watering can of 6 kg',
  beginning: measurementDefinition.parse({ kind: 'measurement', unit: 'cm' }),
  holds: (data): data is MeasurementData => 'readings' in data,
  data: measurementData,
  pool: (_, sessions) => ({ readings: sessions.flatMap((session) => session.readings) }),
  accumulates: false,
  isShare: false,
  score: scoreMeasurement,
  breakdown: measurementLines,
  sentence: measurementSentence,
  said,
  basis: ({ reading: { one, many } }, { weight }) => counted(weight, one, many),
  asCount: () => null,
  weightNoun: ({ reading }) => reading,
  axis: ({ unit }) => ({ max: null, unit: ` ${unit}`, change: unit }),
  discreet: (definition) => ({ ...definition, reading: { one: 'measurement', many: 'measurements' } }),
  defaultCriterion: () => usualCriterion('atLeast', 10),
  meaning: ({ unit }) => [unit],
  table: {
    columns: ({ unit, reading }) => [{ key: 'readings', label: `Each ${reading.one}, ${unit}`, example: '58; 62' }],
    read: (_, __, take) => ({ readings: take('readings', several(oneReading)) ?? [] }),
  },
  agreement: (definition, a, b) => {
    const [first, second] = [scoreMeasurement(definition, a), scoreMeasurement(definition, b)];
    if (first.value === null || second.value === null) return null;
    return totalAgreement(first.value, second.value, `the ${figures[definition.of].label.toLowerCase()} of each`);
  },
};
