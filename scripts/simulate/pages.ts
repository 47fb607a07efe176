// Made-up behavior pages: students whose notes mean nothing, and such with one thing in them.
import { analyseBehavior } from '~/core/behavior/analysis';
import { addDays, type IsoDate, weekday } from '~/core/calendar/iso-date';
import { minutesOfDay, type TimetableBlock } from '~/core/calendar/timetable';
import type { Incident } from '~/core/entries/incidents/incident';
import { type Random, randomFrom } from '~/demo/random';

const days = Array.from({ length: 126 }, (_, i) => addDays('2026-09-07', i)).filter((on) => weekday(on) < 6);
const parts = [
  ['08:30', '10:00', 'Workshop'],
  ['10:00', '10:30', 'Snack'],
  ['10:30', '12:00', 'Garden'],
  ['12:00', '12:45', 'Lunch'],
  ['12:45', '14:30', 'Class'],
] as const;
const timetable = [1, 2, 3, 4, 5].flatMap((day) =>
  parts.map(([from, to, part]): TimetableBlock => ({ weekday: day, from, to, part, location: `${part} room` })),
);
const [FROM, TO] = [minutesOfDay('08:30'), minutesOfDay('14:30')];

const clock = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(Math.floor(minutes % 60)).padStart(2, '0')}`;

export interface PageCase {
  notes: number;
  /** How many notes follow each other on the average. */
  burst: number;
  /** What is three times as likely as it would be; nothing where it is null. */
  threefold: 'weekday' | 'part' | null;
  behaviors: number;
}

/** How many of a burst: the mean is as asked, one at least. */
function burstSize(random: Random, mean: number): number {
  let n = 1;
  while (mean > 1 && random.happens(1 - 1 / mean)) n++;
  return n;
}

function someNotes({ notes, burst, threefold, behaviors }: PageCase, random: Random): Incident[] {
  const made: Incident[] = [];
  while (made.length < notes) {
    const on = random.pick(days) as IsoDate;
    const at = random.whole(FROM, TO - 1);
    // Everything but Mondays, or but the workshop’s quarter of the day, is a third as likely.
    const isLikely = threefold === 'weekday' ? weekday(on) === 1 : at < minutesOfDay('10:00');
    if (threefold && !isLikely && !random.happens(1 / 3)) continue;
    const behavior = `Behavior ${Math.min(random.whole(1, behaviors), random.whole(1, behaviors))}`;
    const size = Math.min(burstSize(random, burst), notes - made.length);
    for (let i = 0; i < size; i++) {
      const time = clock(Math.min(TO - 1, at + 4 * i));
      const block = timetable.find((one) => one.weekday === weekday(on) && one.from <= time && time < one.to);
      made.push({
        ...{ on, time, behaviors: [behavior], location: block?.location ?? null, observer: null },
        antecedents: [random.pick(['Asked to begin', 'Asked to begin', 'Waiting', 'Noise'])],
        consequences: [random.pick(['A break', 'Spoken to', 'Spoken to', 'Left alone'])],
        ...{ functions: [], seconds: null, intensity: null },
      });
    }
  }
  return made;
}

/** How many of a hundred such pages have a finding: any, or the one that is there to be found. */
export function pagesWithFinding(some: PageCase, replications: number, seed: number): number {
  const random = randomFrom(seed);
  let found = 0;
  for (let i = 0; i < replications; i++) {
    const { findings } = analyseBehavior(someNotes(some, random), { days, timetable, watched: [] });
    const isThere = findings.some(({ about }) =>
      some.threefold === 'weekday' ? about.weekday === 1 : some.threefold === 'part' ? about.part === 'Workshop' : true,
    );
    if (isThere) found++;
  }
  return (100 * found) / replications;
}

/** The cases of the table. */
export const pageCases: PageCase[] = [
  ...[1, 2, 4].map((burst) => ({ notes: 80, burst, threefold: null, behaviors: 3 })),
  ...(['weekday', 'part'] as const).map((threefold) => ({ notes: 60, burst: 1, threefold, behaviors: 1 })),
];
