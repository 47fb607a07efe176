import type { IsoDate } from '../calendar/iso-date';
import { hoursByCell, type Timetable } from '../calendar/timetable';
import { type Incident, LEAST_NOTES } from '../entries/incidents/incident';
import { wilsonInterval } from '../statistics/wilson';
import { rateFigure } from '../words/counting';
import { compareRates, type RateComparison, rateOf, ratesByWeek, timesAsMany, type WeekRate } from './rates';
import { whenGrid } from './when';

/** A student’s notes with the timetable in which they could have been made. */
export interface StudentIncidents {
  id: string;
  notes: readonly Incident[];
  timetable: Timetable;
}

export interface StudentPattern {
  id: string;
  n: number;
  weeks: WeekRate[];
  /** The last weeks against as many before them; null where that says nothing. */
  change: (RateComparison & { strength: number }) | null;
}

export interface PartAcross {
  part: string;
  n: number;
  hours: number;
  rate: number | null;
  /** How many students have a note in it, of how many who have it in their timetable. */
  students: number;
  of: number;
}

export interface AntecedentAcross {
  name: string;
  n: number;
  students: string[];
}

export interface Patterns {
  /** In the order they came in. */
  students: StudentPattern[];
  /** The largest weekly rate of all: the top of the one scale. */
  highest: number;
  /** Those whose rate changed more than chance would have it, the surest first. */
  changed: StudentPattern[];
  parts: PartAcross[];
  /** What came before with two students or more, the widest spread first. */
  antecedents: AntecedentAcross[];
}

/**
 * What repeats over several students: each one’s weekly rates, whose rate changed, in which parts of the day, after what.
 * It takes a time that grows in line with the notes.
 *
 * @param days  the school days that are looked at, in order
 * @param recent  the last of them, to be held against as many before: a list of school days
 */
export function patternsAcross(
  students: readonly StudentIncidents[],
  days: readonly IsoDate[],
  { recentDays }: { recentDays: number },
): Patterns {
  const first = days[0] ?? '';
  const last = days.at(-1) ?? '';
  const inRange = students.map(({ notes, ...rest }) => ({
    ...rest,
    notes: notes.filter(({ on }) => first <= on && on <= last),
  }));
  const patterns = inRange.map(({ id, notes }): StudentPattern => {
    const dates = notes.map(({ on }) => on);
    return { id, n: notes.length, weeks: ratesByWeek(dates, days), change: changeOf(dates, days, recentDays) };
  });
  return {
    students: patterns,
    highest: patterns.reduce((most, { weeks }) => weeks.reduce((top, { rate }) => Math.max(top, rate ?? 0), most), 0),
    changed: patterns
      .filter(({ change }) => change !== null && change.strength > 0)
      .sort((a, b) => (b.change?.strength ?? 0) - (a.change?.strength ?? 0)),
    parts: partsAcross(inRange, days),
    antecedents: antecedentsAcross(inRange),
  };
}

/** How far the interval of the share that falls into the last days lies from what an unchanged rate would give. */
function changeOf(dates: readonly IsoDate[], days: readonly IsoDate[], recentDays: number): StudentPattern['change'] {
  const recent = days.slice(-recentDays);
  const before = days.slice(-2 * recentDays, -recentDays);
  const [from, split] = [before[0], recent[0]];
  if (from === undefined || split === undefined) return null;
  let [n, earlier] = [0, 0];
  for (const on of dates) {
    if (on >= split) n++;
    else if (on >= from) earlier++;
  }
  if (n + earlier < LEAST_NOTES) return null;
  const comparison = compareRates({ n: earlier, exposure: before.length }, { n, exposure: recent.length });
  const expected = recent.length / (recent.length + before.length);
  const { low, high } = wilsonInterval(n, n + earlier);
  return { ...comparison, strength: Math.max(low - expected, expected - high) };
}

function partsAcross(students: readonly StudentIncidents[], days: readonly IsoDate[]): PartAcross[] {
  const parts = new Map<string, PartAcross>();
  for (const { notes, timetable } of students) {
    const own = new Map<string, { n: number; hours: number }>();
    for (const { part, hours } of hoursByCell(timetable, days)) {
      own.set(part, { n: 0, hours: (own.get(part)?.hours ?? 0) + hours });
    }
    for (const { part, n } of whenGrid(notes, timetable, days).cells) {
      const sum = own.get(part);
      if (sum) sum.n += n;
    }
    for (const [part, { n, hours }] of own) {
      const all = parts.get(part) ?? { part, n: 0, hours: 0, rate: null, students: 0, of: 0 };
      const sum = { ...all, n: all.n + n, hours: all.hours + hours };
      parts.set(part, { ...sum, students: all.students + (n > 0 ? 1 : 0), of: all.of + 1 });
    }
  }
  return [...parts.values()]
    .map((part) => ({ ...part, rate: rateOf(part.n, part.hours).rate }))
    .sort((a, b) => (b.rate ?? -1) - (a.rate ?? -1) || a.part.localeCompare(b.part));
}

function antecedentsAcross(students: readonly StudentIncidents[]): AntecedentAcross[] {
  const names = new Map<string, { n: number; students: Set<string> }>();
  for (const { id, notes } of students) {
    for (const { antecedents } of notes) {
      for (const name of antecedents) {
        const known = names.get(name) ?? { n: 0, students: new Set<string>() };
        known.n++;
        known.students.add(id);
        names.set(name, known);
      }
    }
  }
  return [...names]
    .map(([name, { n, students: with_ }]) => ({ name, n, students: [...with_] }))
    .filter((one) => one.students.length > 1)
    .sort((a, b) => b.students.length - a.students.length || b.n - a.n || a.name.localeCompare(b.name));
}

/** Whether a student’s notes became more or fewer, in a sentence. */
export function changeSentence(change: RateComparison): string {
  const { before, after } = change;
  const word = (after.rate ?? 0) > (before.rate ?? 0) ? 'More' : 'Fewer';
  const times = timesAsMany(change);
  return `${word}. ${rateFigure(before.rate)} a school day before, ${rateFigure(after.rate)} now${times ? `: ${times}` : ''}.`;
}
