import { type IsoDate, weekday } from '../calendar/iso-date';
import { hoursOf, minutesOfDay, partFinder, type Timetable, type TimetableBlock } from '../calendar/timetable';
import { defined } from '../defined';
import type { Incident } from '../entries/incidents/incident';
import { type Chance, chanceFrom, DEALS, type Family, familyOf, SEED, shuffleFirst } from './deal';
import { monthPair } from './rates';

// Plain loops over typed arrays: each page draws millions of numbers.

/** Incidents this close to each other, in minutes, are one burst: they are not independent. */
const BURST_MINUTES = 15;
export interface Dealt {
  weekday: Family;
  month: Family;
  part: Family;
  location: Family;
  antecedent: Family;
  consequence: Family;
}

export const keyOf = (...parts: (string | number)[]) => JSON.stringify(parts);

/**
 * How the counts of a page stand against incidents that are dealt anew, keeping what is not asked: for weekday and month the days change
 * places among the days on which the student was there; for the part of the day and the place each burst is dealt to a part of its own day,
 * by its hours; for antecedents and consequences the bursts exchange their behaviors (with one behavior there is nothing to exchange). Each count is standardised, and the largest of a family is its yardstick.
 *
 * @param behaviors  those with incidents enough to say something
 * @see max-T permutation: Westfall & Young (1993), from memory; the families and what they keep are our own (docs/measures.md, “Findings”)
 */
export function dealt(
  incidents: readonly Incident[],
  behaviors: readonly string[],
  { days, timetable }: { days: readonly IsoDate[]; timetable: Timetable },
): Dealt {
  const chance = chanceFrom(SEED);
  const here = new Set(days);
  const present = incidents.filter(({ on }) => here.has(on));
  const bursts = burstsOf(incidents);
  const inDays = byDay(present, behaviors, days, chance);
  const inParts = byPart(burstsOf(present), behaviors, timetable, chance);
  return {
    ...inDays,
    ...inParts,
    antecedent: byLabel(bursts, behaviors, 'antecedents', chance),
    consequence: byLabel(bursts, behaviors, 'consequences', chance),
  };
}

/** Incidents of one day that lie close to each other, in order of time. */
function burstsOf(incidents: readonly Incident[]): Incident[][] {
  const inOrder = incidents.toSorted((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : a.time < b.time ? -1 : 1));
  const bursts: Incident[][] = [];
  for (const incident of inOrder) {
    const before = bursts.at(-1)?.at(-1);
    const isClose =
      before?.on === incident.on && minutesOfDay(incident.time) - minutesOfDay(before.time) <= BURST_MINUTES;
    if (isClose) defined(bursts.at(-1)).push(incident);
    else bursts.push([incident]);
  }
  return bursts;
}

const nothing: Family = new Map();

function byDay(
  incidents: readonly Incident[],
  behaviors: readonly string[],
  days: readonly IsoDate[],
  chance: Chance,
): Pick<Dealt, 'weekday' | 'month'> {
  const dates = [...new Set(incidents.map(({ on }) => on))];
  if (dates.length === 0 || behaviors.length === 0 || days.length < 2) return { weekday: nothing, month: nothing };
  const b = behaviors.length;
  const counts = new Int32Array(dates.length * b);
  const rowOf = new Map(dates.map((on, i) => [on, i]));
  for (const { on, behaviors: names } of incidents) {
    for (const name of names) {
      const at = behaviors.indexOf(name);
      if (at >= 0) counts[defined(rowOf.get(on)) * b + at] = (counts[defined(rowOf.get(on)) * b + at] ?? 0) + 1;
    }
  }
  const weekdays = Int32Array.from(days, (on) => weekday(on) - 1);
  const months = monthPair(days);
  // A month's part: its incidents a school day less those of the month before.
  const shares = Float64Array.from(days, (on) =>
    !months
      ? 0
      : on.startsWith(months.last.month)
        ? 1 / months.last.days
        : on.startsWith(months.before.month)
          ? -1 / months.before.days
          : 0,
  );
  const placeOf = new Map(days.map((on, i) => [on, i]));
  const asTheyAre = Int32Array.from(dates, (on) => defined(placeOf.get(on)));
  const countInto = (place: Int32Array, into: Float64Array, at: number, monthly: Float64Array, monthAt: number) => {
    for (let row = 0; row < dates.length; row++) {
      const day = place[row] ?? 0;
      for (let k = 0; k < b; k++) {
        const n = counts[row * b + k] ?? 0;
        if (n === 0) continue;
        const cell = at + k * 7 + (weekdays[day] ?? 0);
        into[cell] = (into[cell] ?? 0) + n;
        monthly[monthAt + k] = (monthly[monthAt + k] ?? 0) + n * (shares[day] ?? 0);
      }
    }
  };
  const [observed, drawn] = [new Float64Array(7 * b), new Float64Array(7 * b * DEALS)];
  const [observedMonth, drawnMonth] = [new Float64Array(b), new Float64Array(b * DEALS)];
  countInto(asTheyAre, observed, 0, observedMonth, 0);
  const places = Int32Array.from(days, (_, i) => i);
  for (let deal = 0; deal < DEALS; deal++) {
    shuffleFirst(places, dates.length, chance);
    countInto(places, drawn, deal * 7 * b, drawnMonth, deal * b);
  }
  const keys = behaviors.flatMap((name) => [1, 2, 3, 4, 5, 6, 7].map((day) => keyOf(name, day)));
  return {
    weekday: familyOf(keys, observed, drawn),
    month: months
      ? familyOf(
          behaviors.map((name) => keyOf(name)),
          observedMonth,
          drawnMonth,
          { eitherSide: true },
        )
      : nothing,
  };
}

/** Each burst is dealt to a part of its own day, and to the place that the timetable has then. */
function byPart(
  bursts: readonly Incident[][],
  behaviors: readonly string[],
  timetable: Timetable,
  chance: Chance,
): Pick<Dealt, 'part' | 'location'> {
  const partOf = partFinder(timetable);
  const placed = bursts.flatMap((burst) => {
    const [first] = burst;
    const block = first && partOf(first.on, first.time);
    return block ? [{ burst, block }] : [];
  });
  if (placed.length === 0 || behaviors.length === 0) return { part: nothing, location: nothing };
  const parts = [...new Set(timetable.map(({ part }) => part))];
  const locations = [...new Set(timetable.flatMap(({ location }) => location ?? []))];
  const b = behaviors.length;
  const size = b * parts.length;
  const placeSize = b * locations.length;
  const slotsOf = (block: TimetableBlock) => ({
    part: parts.indexOf(block.part),
    location: block.location === null ? -1 : locations.indexOf(block.location),
  });
  const slots = new Map(timetable.map((block) => [block, slotsOf(block)]));
  const ofWeekday = new Map(
    [1, 2, 3, 4, 5, 6, 7].map((day) => {
      const blocks = timetable.filter((block) => block.weekday === day);
      let hours = 0;
      const until = blocks.map((block) => {
        hours += hoursOf(block);
        return hours;
      });
      return [day, { slots: blocks.map((block) => defined(slots.get(block))), until, hours }];
    }),
  );
  const weights = placed.map(({ burst }) =>
    behaviors.map((name) => burst.filter(({ behaviors: names }) => names.includes(name)).length),
  );
  const add = (into: Float64Array, at: number, weight: readonly number[], slot: number, slotsWide: number) => {
    for (let k = 0; k < b; k++) {
      const n = weight[k] ?? 0;
      if (n > 0) into[at + k * slotsWide + slot] = (into[at + k * slotsWide + slot] ?? 0) + n;
    }
  };
  const wide = parts.length;
  const [observed, drawn] = [new Float64Array(size), new Float64Array(size * DEALS)];
  const [observedPlace, drawnPlace] = [new Float64Array(placeSize), new Float64Array(placeSize * DEALS)];
  for (const { burst } of placed) {
    for (const incident of burst) {
      const own = behaviors.map((name) => (incident.behaviors.includes(name) ? 1 : 0));
      const block = partOf(incident.on, incident.time);
      if (block) {
        add(observed, 0, own, defined(slots.get(block)).part, wide);
      }
      const location = incident.location === null ? -1 : locations.indexOf(incident.location);
      if (location >= 0) add(observedPlace, 0, own, location, locations.length);
    }
  }
  const days = placed.map(({ block }) => defined(ofWeekday.get(block.weekday)));
  for (let deal = 0; deal < DEALS; deal++) {
    for (let i = 0; i < placed.length; i++) {
      const { slots: own, until, hours } = defined(days[i]);
      const at = (chance(1 << 30) / (1 << 30)) * hours;
      let k = 0;
      while (k < until.length - 1 && at >= (until[k] ?? 0)) k++;
      const { part, location } = defined(own[k]);
      const weight = defined(weights[i]);
      add(drawn, deal * size, weight, part, wide);
      if (location >= 0) add(drawnPlace, deal * placeSize, weight, location, locations.length);
    }
  }
  const keys = behaviors.flatMap((name) => parts.map((part) => keyOf(name, part)));
  return {
    part: familyOf(keys, observed, drawn),
    location:
      locations.length === 0
        ? nothing
        : familyOf(
            behaviors.flatMap((name) => locations.map((location) => keyOf(name, location))),
            observedPlace,
            drawnPlace,
          ),
  };
}

const namesIn = (burst: readonly Incident[], of: 'antecedents' | 'consequences' | 'behaviors') => [
  ...new Set(burst.flatMap((incident) => incident[of])),
];

/** The bursts exchange their behaviors: how often each then comes with each name. */
function byLabel(
  bursts: readonly Incident[][],
  behaviors: readonly string[],
  of: 'antecedents' | 'consequences',
  chance: Chance,
): Family {
  const names = [...new Set(bursts.flatMap((burst) => namesIn(burst, of)))];
  const kinds = new Set(bursts.flatMap((burst) => namesIn(burst, 'behaviors')));
  if (kinds.size < 2 || names.length === 0 || behaviors.length === 0) return nothing;
  const labels = bursts.map((burst) =>
    namesIn(burst, 'behaviors')
      .map((name) => behaviors.indexOf(name))
      .filter((at) => at >= 0),
  );
  const carried = bursts.map((burst) => namesIn(burst, of).map((name) => names.indexOf(name)));
  return exchanged(labels, carried, { rows: behaviors, columns: names }, chance);
}

/** Counts of rows with columns while the bursts exchange their rows and keep their columns. */
function exchanged(
  rows: readonly (readonly number[])[],
  columns: readonly (readonly number[])[],
  names: { rows: readonly string[]; columns: readonly string[] },
  chance: Chance,
): Family {
  const wide = names.columns.length;
  const size = names.rows.length * wide;
  const order = Int32Array.from(rows, (_, i) => i);
  const [observed, drawn] = [new Float64Array(size), new Float64Array(size * DEALS)];
  const countInto = (into: Float64Array, at: number) => {
    for (let i = 0; i < columns.length; i++) {
      for (const row of rows[order[i] ?? 0] ?? []) {
        for (const column of columns[i] ?? []) {
          const cell = at + row * wide + column;
          into[cell] = (into[cell] ?? 0) + 1;
        }
      }
    }
  };
  countInto(observed, 0);
  for (let deal = 0; deal < DEALS; deal++) {
    shuffleFirst(order, order.length, chance);
    countInto(drawn, deal * size);
  }
  const keys = names.rows.flatMap((row) => names.columns.map((column) => keyOf(row, column)));
  return familyOf(keys, observed, drawn);
}
