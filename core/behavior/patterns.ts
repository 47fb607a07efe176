import type { IsoDate } from '../calendar/iso-date';
import { hoursByCell, type Timetable } from '../calendar/timetable';
import { defined } from '../defined';
import { type Incident, LEAST_INCIDENTS } from '../entries/incidents/incident';
import { sum } from '../statistics/spread';
import { rateFigure } from '../words/counting';
import { changesByChance } from './changed';
import { compareRates, type RateComparison, rateOf, ratesByWeek, timesAsMany, type WeekRate } from './rates';
import { whenGrid } from './when';

/** A student’s incidents with the timetable in which they could have been made. */
export interface StudentIncidents {
  id: string;
  incidents: readonly Incident[];
  timetable: Timetable;
  /** Days on which the student was away: in no rate. */
  absences: readonly IsoDate[];
}

export interface StudentPattern {
  id: string;
  n: number;
  weeks: WeekRate[];
  /**
   * The last weeks against as many before them, and how often luck brings anybody of all students a change as large; null where that says
   * nothing.
   */
  change: (RateComparison & { chance: number }) | null;
}

export interface PartAcross {
  part: string;
  n: number;
  hours: number;
  rate: number | null;
  /** How many students have an incident in it, of how many who have it in their timetable. */
  students: number;
  of: number;
}

/** What several students share, with the students. */
export interface SharedAcross {
  name: string;
  n: number;
  students: string[];
}

/** What is looked for with several students. */
export const sharedKinds = ['behaviors', 'antecedents', 'consequences', 'locations', 'dates'] as const;
export type SharedKind = (typeof sharedKinds)[number];

export interface Patterns {
  /** In the order they came in. */
  students: StudentPattern[];
  /** The largest weekly rate of all: the top of the one scale. */
  highest: number;
  /** Those whose rate changed more than chance would have it, the surest first. */
  changed: StudentPattern[];
  parts: PartAcross[];
  /** What two students or more have in common, the widest spread first; dates are as in ISO 8601. */
  shared: Record<SharedKind, SharedAcross[]>;
}

/**
 * What repeats over several students: each one’s weekly rates, whose rate changed, in which parts of the day, after what.
 * It takes a time that grows in line with the incidents.
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
  const inRange = students.map(({ incidents, ...rest }) => ({
    ...rest,
    incidents: incidents.filter(({ on }) => first <= on && on <= last),
  }));
  const present = students.map(({ absences }) => daysPresent(days, absences));
  const windows = students.map((student, i) => windowOf(student, defined(present[i]), recentDays));
  const chances = changesByChance(windows.map((window) => window ?? { counts: [], recent: 0 }));
  const patterns = inRange.map(({ id, incidents }, i): StudentPattern => {
    const dates = incidents.map(({ on }) => on);
    const window = windows[i];
    const change = window ? { ...window.comparison, chance: chances[i] ?? 1 } : null;
    return { id, n: incidents.length, weeks: ratesByWeek(dates, defined(present[i])), change };
  });
  return {
    students: patterns,
    highest: patterns.reduce((most, { weeks }) => weeks.reduce((top, { rate }) => Math.max(top, rate ?? 0), most), 0),
    changed: patterns
      .filter(({ change }) => change !== null && change.chance <= PAGE_P)
      .sort((a, b) => (a.change?.chance ?? 1) - (b.change?.chance ?? 1) || b.n - a.n),
    parts: partsAcross(inRange, days),
    shared: {
      behaviors: sharedBy(inRange, ({ behaviors }) => behaviors),
      antecedents: sharedBy(inRange, ({ antecedents }) => antecedents),
      consequences: sharedBy(inRange, ({ consequences }) => consequences),
      locations: sharedBy(inRange, ({ location }) => (location === null ? [] : [location])),
      dates: sharedBy(inRange, ({ on }) => [on]),
    },
  };
}

function daysPresent(days: readonly IsoDate[], absences: readonly IsoDate[]): readonly IsoDate[] {
  if (absences.length === 0) return days;
  const away = new Set(absences);
  return days.filter((day) => !away.has(day));
}

/** How often anybody may be said to have changed where nobody has. */
const PAGE_P = 0.05;
/** Fewer days before than this say nothing of what was. */
const LEAST_DAYS_BEFORE = 5;

/** A student’s incidents day by day in the last days and in as many before, from the day on which following began. */
function windowOf({ incidents }: StudentIncidents, days: readonly IsoDate[], recentDays: number) {
  const since = incidents.reduce<IsoDate | null>((first, { on }) => (first === null || on < first ? on : first), null);
  if (since === null) return null;
  const followed = days.slice(-2 * recentDays).filter((on) => on >= since);
  const recent = Math.min(recentDays, followed.length);
  const before = followed.length - recent;
  if (before < LEAST_DAYS_BEFORE) return null;
  const byDay = new Map<IsoDate, number>(followed.map((on) => [on, 0]));
  for (const { on } of incidents) {
    const n = byDay.get(on);
    if (n !== undefined) byDay.set(on, n + 1);
  }
  const counts = [...byDay.values()];
  const earlier = sum(counts.slice(0, before));
  const late = sum(counts.slice(before));
  if (earlier + late < LEAST_INCIDENTS) return null;
  const comparison = compareRates({ n: earlier, exposure: before }, { n: late, exposure: recent });
  return { counts, recent, comparison };
}

function partsAcross(students: readonly StudentIncidents[], schoolDays: readonly IsoDate[]): PartAcross[] {
  const parts = new Map<string, PartAcross>();
  for (const { incidents, timetable, absences } of students) {
    const days = daysPresent(schoolDays, absences);
    const own = new Map<string, { n: number; hours: number }>();
    for (const { part, hours } of hoursByCell(timetable, days)) {
      own.set(part, { n: 0, hours: (own.get(part)?.hours ?? 0) + hours });
    }
    for (const { part, n } of whenGrid(incidents, timetable, days).cells) {
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

function sharedBy(
  students: readonly StudentIncidents[],
  namesOf: (incident: Incident) => readonly string[],
): SharedAcross[] {
  const names = new Map<string, { n: number; students: Set<string> }>();
  for (const { id, incidents } of students) {
    for (const incident of incidents) {
      for (const name of namesOf(incident)) {
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

/** Whether a student’s incidents became more or fewer, in a sentence. */
export function changeSentence(change: RateComparison): string {
  const { before, after } = change;
  const word = (after.rate ?? 0) > (before.rate ?? 0) ? 'More' : 'Fewer';
  const times = timesAsMany(change);
  return `${word}. ${rateFigure(before.rate)} a school day before, ${rateFigure(after.rate)} now${times ? `: ${times}` : ''}.`;
}
