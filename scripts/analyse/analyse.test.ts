import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it } from 'vitest';
import { nothingSet as none } from '~/core/analyse/analyse-series';
import { analyseAbcFile, analyseAgreementFile, analyseSeriesFile, timetableFrom, windowsFrom } from './files';
import { Malformed, readTable, textOf } from './table';

const project = fileURLToPath(new URL('../..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'analyse-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** The command as it is typed, on a file with this text. */
function analyse(text: string, ...args: [what: string, ...options: string[]]) {
  writeFileSync(join(folder, 'data.csv'), text);
  const [what, ...options] = args;
  const command = ['--prefix', project, 'run', '--silent', 'analyse', '--', what, 'data.csv', ...options];
  const { status, stdout, stderr } = spawnSync('npm', command, { cwd: folder, encoding: 'utf8' });
  return { status, json: status === 0 ? JSON.parse(stdout) : null, stdout, said: stderr };
}

const lines = (...rows: string[]) => `${rows.join('\n')}\n`;

function malformed(read: () => unknown): string {
  try {
    read();
  } catch (error) {
    if (error instanceof Malformed) return `${error.line}:${error.column} ${error.message}`;
    throw error;
  }
  return 'nothing';
}

describe('the analyse command', { timeout: 60_000 }, () => {
  it('prints one JSON object for a series, with everything that the documents promise', () => {
    const values = [20, 25, 20, 30, 40, 45, 50, 60];
    const rows = values.map(
      (value, i) => `2026-09-${String(1 + 3 * i).padStart(2, '0')},${value},${i < 3 ? 'A' : 'B'}`,
    );
    const { status, json } = analyse(
      lines('date,value,phase', ...rows),
      'series',
      ...['--direction', 'increase', '--target', '80', '--target-date', '2026-12-18'],
    );
    expect(status).toBe(0);
    expect(json.points).toHaveLength(8);
    // Theil–Sen, by hand from the rows: the median of 28 slopes, in days of three.
    const slopes = values
      .flatMap((a, i) => values.slice(i + 1).map((b, j) => (b - a) / (3 * (j + 1))))
      .sort((a, b) => a - b);
    expect(json.trend.theilSen.slopePerWeek).toBeCloseTo((7 * ((slopes[13] ?? 0) + (slopes[14] ?? 0))) / 2, 9);
    expect(json.trend.theilSen.low).toBeLessThan(json.trend.theilSen.high);
    expect(Object.keys(json.trend.leastSquares)).toEqual(expect.arrayContaining(['slopePerWeek', 'low', 'high', 'r2']));
    expect(json.trend.splitMiddle.slopePerWeek).toBeGreaterThan(0);
    expect(json.trend.mannKendall).toMatchObject({ s: 25 });
    expect(json.phases[1]).toMatchObject({ name: 'B', n: 5, mean: 45, median: 45, min: 30, max: 60, stable: false });
    expect(json.comparisons).toMatchObject([
      { from: 'A', to: 'B', nap: 1, pnd: 1, tau: 1, tauU: 1, immediate: 20, enough: 'withReservations' },
    ]);
    expect(json.comparisons[0]).toMatchObject({
      napHigh: 1,
      dualCriterion: null,
      logResponseRatio: { se: expect.any(Number) },
    });
    expect(json.format).toBe(2);
    expect(json.trend).toMatchObject({ drawn: null, reason: expect.stringContaining('a trend needs 8') });
    expect(json.aimLine.from).toEqual({ on: '2026-09-07', value: 20 });
    expect(json.decision).toMatchObject({ is: 'above', reason: expect.stringContaining('(40, 45, 50, 60)') });
  });

  it('prints how likely luck meets a rule, and the days of a latency file', () => {
    const asked = ['--k', '3', '--n', '4', '--value', '80', '--opportunities', '6', '--true', '60', '--days', '57'];
    const command = ['--prefix', project, 'run', '--silent', 'analyse', '--', 'luck', ...asked];
    const { stdout } = spawnSync('npm', command, { cwd: folder, encoding: 'utf8' });
    expect(JSON.parse(stdout).chanceMet).toBeCloseTo(0.71, 2);
    const { json } = analyse(
      lines('date,seconds', '2026-09-01,3', ...Array(9).fill('2026-09-01,'), '2026-09-02,4', '2026-09-02,8'),
      ...(['latency', '--limit', '30'] as const),
    );
    expect(json.days).toEqual([
      { date: '2026-09-01', median: 30, isBeyondLimit: true, misses: 9, n: 10 },
      { date: '2026-09-02', median: 6, isBeyondLimit: false, misses: 0, n: 2 },
    ]);
  });

  it('takes many series in one file, with opportunities, places and observers', () => {
    const rows = ['2026-09-01', '2026-09-02', '2026-09-03', '2026-09-04'].flatMap((date) => [
      `${date},100,10,Kitchen,a`,
      `${date},${date < '2026-09-03' ? 0 : 100},2,Garden,b`,
    ]);
    const { json } = analyse(
      lines('date,value,of,place,series', ...rows.map((row) => row.replace(/,[ab]$/, `,${row.at(-1)}`))),
      ...([
        'series',
        '--target',
        '80',
        '--target-date',
        '2026-12-01',
        '--baseline',
        '10',
        '--criterion',
        '2/4',
        '--distinct-places',
        '1',
      ] as const),
    );
    expect(
      json.map(({ series, mastery }: { series: string; mastery: { metOn: string } }) => [series, mastery.metOn]),
    ).toEqual([
      ['a', '2026-09-02'],
      ['b', '2026-09-04'],
    ]);
    const together = analyse(
      lines('date,value,of,place', ...rows.map((row) => row.slice(0, -2))),
      ...([
        'series',
        '--target',
        '80',
        '--target-date',
        '2026-12-01',
        '--baseline',
        '10',
        '--criterion',
        '2/4',
        '--distinct-places',
        '2',
        '--comparison',
        'atLeast',
        '--minimum',
        '2',
      ] as const),
    ).json;
    expect(together.mastery).toMatchObject({ metOn: '2026-09-04', holding: true });
    expect(together.points[0]).toMatchObject({ of: 10, isPartial: false });
  });

  it('names line and column of what it cannot read, and exits with 1', () => {
    const { status, stdout, said } = analyse(lines('date,value', '2026-09-01,3', '2026-09-02,three'), 'series');
    expect(status).toBe(1);
    expect(stdout).toBe('');
    expect(said.trim()).toBe('data.csv, line 3, column 2: value: “three” is not a number.');
  });

  it('says how it is used where it is asked wrongly', () => {
    expect(analyse('a,b\n1,1\n', 'agreement', '--kind', 'mood').said).toContain('--kind is one of total, interval');
    expect(analyse('a,b\n1,1\n', 'sums').said).toContain('Usage: npm run --silent analyse');
  });
});

describe('a series file', () => {
  it('takes a blank value for none: counted, and no point', () => {
    const text = lines('date,value', '2026-09-01,3', '2026-09-02,', '2026-09-03,0');
    const { blank, points } = analyseSeriesFile(text, none);
    expect(blank).toBe(1);
    expect(points.map(({ value }) => value)).toEqual([3, 0]);
    expect(malformed(() => analyseSeriesFile('date,value\n2026-09-01,\n', none))).toBe('2:2 value: no row has one.');
  });

  it('reads columns in any order and case, a mark at the start, and lines ended in any way', () => {
    const bytes = new TextEncoder().encode('\uFEFFValue,DATE\r\n3,2026-09-01\r\n"4",2026-09-02\r5,2026-09-03');
    expect(analyseSeriesFile(textOf(bytes), none).points.map(({ value }) => value)).toEqual([3, 4, 5]);
    expect(malformed(() => textOf(Uint8Array.of(0x66, 0xff, 0xfe)))).toContain('not UTF-8');
  });

  it('refuses what is no date and no number, at its place', () => {
    const of = (row: string) => malformed(() => analyseSeriesFile(lines('date,value', row), none));
    expect(of('2026-02-29,3')).toBe('2:1 date: “2026-02-29” is not a date such as 2026-03-02.');
    expect(of('2026-03-02,75%')).toBe('2:2 value: “75%” is not a number.');
    expect(of('2026-03-02,Infinity')).toContain('2:2');
    expect(of('2026-03-02,1e999')).toContain('too large');
    expect(of('2026-03-02,-1.5e2')).toBe('nothing');
  });
});

describe('a table', () => {
  const of = (text: string) => malformed(() => readTable(text, ['a', 'b']));

  it('is refused where its shape is wrong, at its place', () => {
    expect(of('')).toBe('1:1 The first row must name the columns: a, b.');
    expect(of('a,c\n1,2\n')).toBe('1:3 There is no column “b”.');
    expect(of('a,b,a\n1,2,3\n')).toBe('1:3 There are two columns “a”.');
    expect(of('a,b\n')).toContain('There is no row');
    expect(of('a,b\n1\n')).toContain('2:2 The row has 1 cells');
    expect(of('a,b\n1,2,3\n')).toContain('2:3 The row has 3 cells');
    expect(of('a,b\n1,"2\n')).toContain('2:2 A quoted cell');
  });

  it('counts lines as an editor does: cells over several lines and empty lines too', () => {
    expect(of('a,b\n"one\ntwo",2\n\n1\n')).toContain('5:2');
  });
});

describe('a file of ABC incidents', () => {
  it('parts several in a cell by an upright stroke', () => {
    const text = lines(
      'at,behavior,antecedent,consequence',
      '2026-09-01T09:10,Calling out,Asked to begin|Waiting,Peers laugh',
      '2026-09-01 10:10:30,Leaving | Calling out,Waiting,',
      '2026-09-02T09:15,Leaving,,Sent back',
    );
    const { notes, behaviors, chains } = analyseAbcFile(text, { from: null, to: null });
    expect(notes).toBe(3);
    expect(behaviors.map(({ name, n, antecedents }) => [name, n, antecedents.map((a) => `${a.name} ${a.n}`)])).toEqual([
      ['Calling out', 2, ['Waiting 2', 'Asked to begin 1']],
      ['Leaving', 2, ['Waiting 1']],
    ]);
    expect(chains).toHaveLength(2);
    expect(analyseAbcFile(text, { from: '2026-08-31', to: '2026-09-04' }).behaviors[0]?.perSchoolDay.rate).toBe(0.4);
  });

  it('takes its hours from a timetable and its rate per hour from windows, as the page does', () => {
    const text = lines(
      'at,behavior,antecedent,consequence,location',
      '2026-09-01T09:10,Leaving,Waiting,,Workshop',
      '2026-09-02T12:10,Leaving,Waiting,,Kitchen',
    );
    const timetable = timetableFrom(
      lines('weekday,part,from,to,location', '2,Bench,09:00,10:00,Workshop', '3,Lunch,12:00,12:30,Kitchen'),
    );
    const watched = windowsFrom(
      lines(
        'date,part,behavior,count,minutes',
        '2026-09-01,Bench,Leaving,1,30',
        '2026-09-02,,Leaving,0,30',
        '2026-10-01,,Leaving,9,10',
      ),
    );
    const [leaving] = analyseAbcFile(text, { from: '2026-08-31', to: '2026-09-04', timetable, watched }).behaviors;
    // One of each weekday: an hour at the bench, half of one at lunch; one in the hour watched, what came later left out.
    expect(leaving?.parts).toMatchObject([
      { part: 'Bench', n: 1, exposure: 1, rate: 1 },
      { part: 'Lunch', n: 1, exposure: 0.5, rate: 2 },
    ]);
    expect(leaving?.perHourObserved).toMatchObject({ n: 1, exposure: 1, rate: 1 });
    expect(leaving?.settings.map(({ name }) => name)).toEqual(['Kitchen', 'Workshop']);
    expect(() => timetableFrom(lines('weekday,part,from,to', '8,Bench,09:00,10:00'))).toThrow(
      'Monday is 1, Sunday is 7.',
    );
    expect(() => timetableFrom(lines('weekday,part,from,to', '1,Bench,10:00,09:00'))).toThrow(Malformed);
    expect(() => windowsFrom(lines('date,behavior,count,minutes', '2026-09-01,Leaving,1,0'))).toThrow(
      'There must be some.',
    );
  });

  it('takes what else a note may say, and leaves days without school out', () => {
    const text = lines(
      'at,behavior,antecedent,consequence,setting,observer,function,seconds,intensity',
      '2026-09-01T09:10,Leaving,Waiting,A rest,Shop,H. Bruun,escape|attention,90,2',
      '2026-09-02T09:20,Leaving,Waiting,A rest,Shop,N. Haddad,escape,,',
      '2026-09-02T09:25,Leaving,,,,,,30,1',
    );
    const range = { from: '2026-08-31', to: '2026-09-04', closures: [{ first: '2026-09-03', last: '2026-09-04' }] };
    const [leaving] = analyseAbcFile(text, range).behaviors;
    expect(leaving).toMatchObject({
      perSchoolDay: { n: 3, exposure: 3, rate: 1 },
      durations: { n: 2, medianSeconds: 60, longestSeconds: 90, totalSeconds: 120 },
      intensities: { n: 2, median: 1.5 },
      observers: [
        { observer: 'H. Bruun', n: 1 },
        { observer: 'N. Haddad', n: 1 },
      ],
      weeks: [{ monday: '2026-08-31', n: 3, exposure: 3, rate: 1 }],
      quarterHours: [
        { from: '09:00', n: 1 },
        { from: '09:15', n: 2 },
      ],
    });
    // A note with two functions counts as one, shared between them.
    expect(leaving?.functions.map(({ name, weight }) => [name, weight])).toEqual([
      ['escape', 1.5],
      ['attention', 0.5],
    ]);
    expect(malformed(() => analyseAbcFile(text.replace(',90,', ',long,'), range))).toContain(
      'seconds: “long” is not a number.',
    );
  });

  it('refuses a time that is none and a note without a behavior, at their place', () => {
    const of = (row: string) =>
      malformed(() => analyseAbcFile(lines('at,behavior,antecedent,consequence', row), { from: null, to: null }));
    expect(of('yesterday,Leaving,,')).toContain('2:1 at: “yesterday” is not a date and time');
    expect(of('2026-09-31T09:00,Leaving,,')).toContain('2:1 at:');
    expect(of('2026-09-01T24:00,Leaving,,')).toContain('2:1 at:');
    expect(of('2026-09-01T09:00, | ,,')).toBe('2:2 behavior: Say which it was.');
  });
});

describe('a file of two observers', () => {
  const text = (...pairs: [string, string][]) => lines('a,b', ...pairs.map((pair) => pair.join(',')));

  it('gives the coefficient asked for, and leaves out what one of them left blank', () => {
    const counts = analyseAgreementFile(text(['3', '3'], ['2', '4'], ['', '9']), 'total');
    expect(counts).toMatchObject({
      n: 2,
      leftOut: 1,
      totalCount: 5 / 7,
      meanCountPerInterval: 0.75,
      exactCountPerInterval: 0.5,
    });
    expect(counts.agreement).toBe(5 / 7);
    const yesNo = analyseAgreementFile(text(['yes', '1'], ['no', 'TRUE'], ['n', '0']), 'interval');
    expect(yesNo).toMatchObject({ agreement: 2 / 3, scoredInterval: 0.5, unscoredInterval: 0.5, reachesMark: false });
    expect(analyseAgreementFile(text(['30', '30'], ['60', '80']), 'duration')).toMatchObject({
      agreement: 90 / 110,
      meanDurationPerOccurrence: 0.875,
    });
    expect(analyseAgreementFile(text(['right', 'right'], ['right', 'none']), 'trial').agreement).toBe(0.5);
    expect(analyseAgreementFile(text(['x', 'x'], ['y', 'y'], ['x', 'y'], ['y', 'x']), 'kappa')).toMatchObject({
      kappa: 0,
      observed: 0.5,
    });
  });

  it('refuses counts below nothing and intervals that are neither yes nor no', () => {
    expect(malformed(() => analyseAgreementFile(text(['3', '-1']), 'total'))).toContain(
      '2:2 b: It cannot be below nothing',
    );
    expect(malformed(() => analyseAgreementFile(text(['maybe', 'no']), 'interval'))).toContain(
      '2:1 a: Write yes or no',
    );
    expect(malformed(() => analyseAgreementFile(text(['', '1']), 'kappa'))).toContain('No row was filled in by both');
  });
});
