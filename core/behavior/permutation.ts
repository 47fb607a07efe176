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
    ...byLabel(bursts, behaviors, chance),
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
  const counts = dates.map(() => behaviors.map(() => 0));
  const rowOf = new Map(dates.map((on, i) => [on, i]));
  for (const { on, behaviors: names } of incidents) {
    const row = defined(counts[defined(rowOf.get(on))]);
    for (const name of names) {
      const at = behaviors.indexOf(name);
      if (at >= 0) row[at] = (row[at] ?? 0) + 1;
    }
  }
  const { named, often } = weighed(counts);
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
      for (let x = named.starts[row] ?? 0; x < (named.starts[row + 1] ?? 0); x++) {
        const [k, n] = [named.items[x] ?? 0, often.items[x] ?? 0];
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

/** Which part and which place of the lists a minute of the timetable belongs to; −1 where it has no place. */
interface Slots {
  part: number;
  location: number;
}

/** Each burst is dealt to a minute of its own day's timetable: to its part, and to the place that it has then. */
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
  const slotsOf = (block: TimetableBlock): Slots => ({
    part: parts.indexOf(block.part),
    location: block.location === null ? -1 : locations.indexOf(block.location),
  });
  const slots = new Map(timetable.map((block) => [block, slotsOf(block)]));
  const ofWeekday = new Map(
    [1, 2, 3, 4, 5, 6, 7].map((day) => {
      const minutes = timetable
        .filter((block) => block.weekday === day)
        .flatMap((block) => Array<Slots>(Math.round(60 * hoursOf(block))).fill(defined(slots.get(block))));
      const slotOf = (what: 'part' | 'location') => Int32Array.from(minutes, (slot) => slot[what]);
      return [day, { parts: slotOf('part'), locations: slotOf('location') }];
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
  const { named, often } = weighed(weights);
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
    for (let i = 0; i < days.length; i++) {
      const day = days[i];
      if (!day) continue;
      const minute = chance(day.parts.length);
      const inPart = deal * size + (day.parts[minute] ?? 0);
      const location = day.locations[minute] ?? -1;
      const inPlace = deal * placeSize + location;
      for (let x = named.starts[i] ?? 0; x < (named.starts[i + 1] ?? 0); x++) {
        const [behavior, n] = [named.items[x] ?? 0, often.items[x] ?? 0];
        const cell = inPart + behavior * wide;
        drawn[cell] = (drawn[cell] ?? 0) + n;
        if (location < 0) continue;
        const place = inPlace + behavior * locations.length;
        drawnPlace[place] = (drawnPlace[place] ?? 0) + n;
      }
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

/** The bursts exchange their behaviors, the same way for what came before and after: how often each then comes with each name. */
function byLabel(
  bursts: readonly Incident[][],
  behaviors: readonly string[],
  chance: Chance,
): Pick<Dealt, 'antecedent' | 'consequence'> {
  const named = new Set(bursts.flatMap((burst) => namesIn(burst, 'behaviors')));
  if (named.size < 2 || behaviors.length === 0) return { antecedent: nothing, consequence: nothing };
  const { kinds, kindOf } = kindsOf(
    bursts.map((burst) =>
      namesIn(burst, 'behaviors')
        .map((name) => behaviors.indexOf(name))
        .filter((at) => at >= 0),
    ),
  );
  const namesOf = (of: 'antecedents' | 'consequences') => [...new Set(bursts.flatMap((burst) => namesIn(burst, of)))];
  const [before, after] = [namesOf('antecedents'), namesOf('consequences')];
  const wide = before.length + after.length;
  const beforeAt = new Map(before.map((name, i) => [name, i]));
  const afterAt = new Map(after.map((name, i) => [name, before.length + i]));
  const carried = endToEnd(
    bursts.map((burst) => [
      ...namesIn(burst, 'antecedents').map((name) => defined(beforeAt.get(name))),
      ...namesIn(burst, 'consequences').map((name) => defined(afterAt.get(name))),
    ]),
  );
  const size = behaviors.length * wide;
  const [observed, drawn] = [new Float64Array(size), new Float64Array(size * DEALS)];
  countTogether(observed, 0, wide, kindOf, kinds, carried);
  for (let deal = 0; deal < DEALS; deal++) {
    shuffleFirst(kindOf, kindOf.length, chance);
    countTogether(drawn, deal * size, wide, kindOf, kinds, carried);
  }
  const familyFrom = (names: readonly string[], from: number): Family => {
    const cells = behaviors.flatMap((_, k) => names.map((_, i) => k * wide + from + i));
    if (cells.length === 0) return nothing;
    const own = new Float64Array(cells.length * DEALS);
    for (let deal = 0, at = 0; deal < DEALS; deal++) {
      for (const cell of cells) own[at++] = drawn[deal * size + cell] ?? 0;
    }
    const keys = behaviors.flatMap((behavior) => names.map((name) => keyOf(behavior, name)));
    return familyOf(
      keys,
      Float64Array.from(cells, (cell) => observed[cell] ?? 0),
      own,
    );
  };
  return { antecedent: familyFrom(before, 0), consequence: familyFrom(after, before.length) };
}

/**
 * Adds how often each behavior comes with each name, each burst having the behaviors of its kind.
 *
 * @param into  from `at` on a row of `wide` names for each behavior
 */
function countTogether(
  into: Float64Array,
  at: number,
  wide: number,
  kindOf: Int32Array,
  { starts, items }: EndToEnd,
  carried: EndToEnd,
): void {
  let from = 0;
  for (let i = 0; i < kindOf.length; i++) {
    const kind = kindOf[i] ?? 0;
    const to = carried.starts[i + 1] ?? 0;
    const last = starts[kind + 1] ?? 0;
    for (let x = starts[kind] ?? 0; x < last; x++) {
      const row = at + (items[x] ?? 0) * wide;
      for (let y = from; y < to; y++) {
        const cell = row + (carried.items[y] ?? 0);
        into[cell] = (into[cell] ?? 0) + 1;
      }
    }
    from = to;
  }
}

/** Of rows of counts those above 0: which they are, and how many. */
const weighed = (rows: readonly (readonly number[])[]) => ({
  named: endToEnd(rows.map((row) => row.flatMap((n, k) => (n > 0 ? [k] : [])))),
  often: endToEnd(rows.map((row) => row.filter((n) => n > 0))),
});

/** The different lists among some, and which of them each is. */
function kindsOf(lists: readonly (readonly number[])[]): { kinds: EndToEnd; kindOf: Int32Array } {
  const kinds = new Map(lists.map((list) => [keyOf(...list), list]));
  const placeOf = new Map([...kinds.keys()].map((key, i) => [key, i]));
  return {
    kinds: endToEnd([...kinds.values()]),
    kindOf: Int32Array.from(lists, (list) => defined(placeOf.get(keyOf(...list)))),
  };
}

interface EndToEnd {
  starts: Int32Array;
  items: Int32Array;
}

/** Lists of numbers laid end to end: those of list `i` are the items from its start to the next one's. */
function endToEnd(lists: readonly (readonly number[])[]): EndToEnd {
  const starts = new Int32Array(lists.length + 1);
  lists.forEach((list, i) => {
    starts[i + 1] = (starts[i] ?? 0) + list.length;
  });
  return { starts, items: Int32Array.from(lists.flat()) };
}
