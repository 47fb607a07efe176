import type { AbcNote } from './abc-note';
import { type Chain, chainsOf } from './chains';
import { type Finding, findingsOf, type TooFew, tooFewToSay } from './findings';
import { type FunctionWeight, functionWeights } from './hypotheses';
import { type Durations, durationsOf, type Intensities, intensitiesOf } from './magnitude';
import {
  type Exposure,
  type MonthRate,
  type Rate,
  rateOf,
  ratePerHourObserved,
  ratesByMonth,
  ratesByWeekday,
  type WeekdayRate,
} from './rates';
import { type FacetShare, facetShares } from './shares';
import { byPart, type When, whenGrid } from './when';

/** All that a behavior's notes come to. */
export interface BehaviorFigures {
  name: string;
  n: number;
  perSchoolDay: Rate;
  /** From stretches of watching, those without an occurrence among them. */
  perHourObserved: Rate;
  when: When;
  parts: (Rate & { part: string })[];
  weekdays: WeekdayRate[];
  months: MonthRate[];
  antecedents: FacetShare[];
  consequences: FacetShare[];
  settings: FacetShare[];
  chains: Chain[];
  functions: FunctionWeight[];
  durations: Durations | null;
  intensities: Intensities | null;
}

export interface BehaviorAnalysis {
  notes: number;
  /** The commonest behavior first. */
  behaviors: BehaviorFigures[];
  /** All whole chains, the commonest first. */
  chains: Chain[];
  findings: Finding[];
  tooFew: TooFew[];
}

/**
 * A student's ABC notes, analysed. A note with several behaviors counts for each of them.
 *
 * @param notes  in any order
 * @param exposure  where and for how long a note could have come about
 */
export function analyseBehavior(notes: readonly AbcNote[], exposure: Exposure): BehaviorAnalysis {
  const names = [...new Set(notes.flatMap((note) => note.behaviors))];
  const behaviors = names
    .map((name) => figuresOf(name, notes, exposure))
    .sort((a, b) => b.n - a.n || a.name.localeCompare(b.name));
  const findings = behaviors.flatMap(findingsOf).sort((a, b) => b.strength - a.strength);
  return { notes: notes.length, behaviors, chains: chainsOf(notes), findings, tooFew: tooFewToSay(behaviors) };
}

function figuresOf(name: string, notes: readonly AbcNote[], { days, timetable, watched }: Exposure): BehaviorFigures {
  const own: AbcNote[] = [];
  const others: AbcNote[] = [];
  for (const note of notes) (note.behaviors.includes(name) ? own : others).push(note);
  const dates = own.map((note) => note.on);
  const when = whenGrid(own, timetable, days);
  return {
    name,
    n: own.length,
    perSchoolDay: rateOf(own.length, days.length),
    perHourObserved: ratePerHourObserved(watched.filter((stretch) => stretch.behavior === name)),
    when,
    parts: byPart(when.cells),
    weekdays: ratesByWeekday(dates, days),
    months: ratesByMonth(dates, days),
    antecedents: facetShares(own, others, 'antecedents'),
    consequences: facetShares(own, others, 'consequences'),
    settings: facetShares(own, others, 'settings'),
    chains: chainsOf(own, name),
    functions: functionWeights(own),
    durations: durationsOf(own),
    intensities: intensitiesOf(own),
  };
}
