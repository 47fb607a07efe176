// “Data of this page”, given to the command with the options that the page names, must print the page’s figures.

import { parseArgs } from 'node:util';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { nothingSet, type SeriesOptions } from '~/core/analyse/analyse-series';
import { addDays, weekday } from '~/core/calendar/iso-date';
import type { GoalDefinition } from '~/core/goals/goal';
import { dataFields, dataOfPage, optionsOfPage } from '~/core/progress/data-of-page';
import { progressOf } from '~/core/progress/progress';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { analyseSeriesFile } from './files';

const days = Array.from({ length: 60 }, (_, i) => addDays('2026-09-02', i)).filter((on) => weekday(on) < 6);
const goal = (changes: object = {}) =>
  goalOf({ baseline: { value: 20, on: '2026-09-01' }, targetOn: '2026-12-31', ...changes });
const seen = (n: number, right: (i: number) => number, of = (i: number) => 8 + (i % 3)) =>
  days.slice(0, n).map((on, i) => session(on, Math.min(of(i), right(i)), of(i)));
const phases = [
  { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
  { label: 'Word cards', startsOn: '2026-09-10', isBaseline: false },
  { label: 'Peer model', startsOn: '2026-10-01', isBaseline: false },
];

const pages: [is: string, goal: GoalDefinition, sessions: ReturnType<typeof seen>, today: string][] = [
  ['metHolding', goal(), seen(12, (i) => (i < 5 ? 3 : 9)), '2026-09-18'],
  ['metNotHolding', goal(), seen(16, (i) => (i < 5 ? 9 : 2)), '2026-09-24'],
  ['metNotChecked', goal(), seen(5, () => 9), '2026-11-02'],
  ['noRecentData', goal(), seen(5, () => 3), '2026-11-02'],
  ['tooEarly', goal(), seen(3, () => 3), '2026-09-07'],
  ['below', goal(), seen(30, () => 1), '2026-10-14'],
  ['above', goal(), seen(30, (i) => 6 + (i % 2)), '2026-10-14'],
  ['noChange', goal(), seen(30, (i) => 2 + (i % 4)), '2026-10-14'],
  ['below', goal({ baseline: null, phases }), seen(34, (i) => (i < 6 ? 2 : i % 3)), '2026-10-19'],
];

/** The words of the page’s command as the command itself reads them. */
function optionsFrom(args: string[]): SeriesOptions {
  const { values } = parseArgs({
    args,
    options: Object.fromEntries(
      args.filter((arg) => arg.startsWith('--')).map((arg) => [arg.slice(2), { type: 'string' as const }]),
    ),
  });
  const text = (name: string) => (values[name] as string | undefined) ?? null;
  const number = (name: string) => (text(name) === null ? null : Number(text(name)));
  const [k, n] = (text('criterion') ?? '').split('/').map(Number);
  return {
    ...nothingSet,
    direction: text('direction') as SeriesOptions['direction'],
    comparison: text('comparison') as SeriesOptions['comparison'],
    ...{ baseline: number('baseline'), baselineDate: text('baseline-date'), target: number('target') },
    ...{ targetDate: text('target-date'), criterion: { k: k ?? 0, n: n ?? 0 }, minimum: number('minimum') ?? 1 },
    today: text('today'),
  };
}

describe('data of a goal’s page', () => {
  it.each(pages)('gives the page’s figures again: %s', (is, some, sessions, today) => {
    const page = progressOf(some, sessions, { calendar, today });
    expect(page.decision.is).toBe(is);
    const text = Papa.unparse({ fields: dataFields, data: dataOfPage(some, page) });
    const again = analyseSeriesFile(text, optionsFrom(optionsOfPage(some, page, today)));
    expect(again.decision).toEqual({ is, reason: page.decision.reason, trend: page.decision.trend });
    expect(again.mastery).toEqual(page.mastery);
    expect(again.now).toBe(page.now);
    expect(again.aimLine).toEqual(page.aimLine);
    const { trend } = page;
    if (trend) {
      expect(again.trend.drawn).toMatchObject({ levelLast: trend.levelLast, levelLow: trend.levelLow });
      expect(again.trend.drawn?.slopePerWeek).toBeCloseTo(trend.slopePerWeek, 12);
      expect(again.trend.drawn?.low).toBeCloseTo(trend.low, 12);
    } else expect(again.trend.drawn).toBeNull();
  });
});
