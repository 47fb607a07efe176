import { hoursByLocation, type LocationHours } from '../calendar/timetable';
import type { Incident } from '../entries/incidents/incident';
import { type Chain, chainsThrough, commonestFirst } from './chains';
import { type Finding, findingsOf, type TooFew, tooFewToSay } from './findings';
import { type FunctionWeight, functionWeights } from './hypotheses';
import { type Durations, durationsOf, type Intensities, intensitiesOf } from './magnitude';
import { byObserver, type ObserverCount } from './observers';
import {
  type Exposure,
  type MonthRate,
  type Rate,
  rateOf,
  ratePerHourObserved,
  ratesByMonth,
  ratesByWeek,
  ratesByWeekday,
  type WeekdayRate,
  type WeekRate,
} from './rates';
import { countFacet, type Facet, type FacetCounts, type FacetShare, facetShares } from './shares';
import { byPart, byQuarterHour, type QuarterHour, type When, whenGrid } from './when';

/** All that a behavior's incidents come to. */
export interface BehaviorFigures {
  name: string;
  n: number;
  perSchoolDay: Rate;
  /** Incidents of days without school, or on which the student was away: in no rate. */
  onOtherDays: number;
  /** From stretches of watching, those without an occurrence among them. */
  perHourObserved: Rate;
  when: When;
  parts: (Rate & { part: string })[];
  weekdays: WeekdayRate[];
  months: MonthRate[];
  weeks: WeekRate[];
  quarterHours: QuarterHour[];
  observers: ObserverCount[];
  antecedents: FacetShare[];
  consequences: FacetShare[];
  settings: FacetShare[];
  /** Hours at each place, where the timetable says where the student is. */
  settingHours: LocationHours[];
  chains: Chain[];
  functions: FunctionWeight[];
  durations: Durations | null;
  intensities: Intensities | null;
}

export interface BehaviorAnalysis {
  incidents: number;
  /** The commonest behavior first. */
  behaviors: BehaviorFigures[];
  /** All whole chains, the commonest first. */
  chains: Chain[];
  findings: Finding[];
  tooFew: TooFew[];
}

/**
 * A student's ABC incidents, analysed. An incident with several behaviors counts for each of them.
 *
 * @param incidents  in any order
 * @param exposure  where and for how long an incident could have come about
 */
export function analyseBehavior(incidents: readonly Incident[], exposure: Exposure): BehaviorAnalysis {
  const counts = {
    antecedents: countFacet(incidents, 'antecedents'),
    consequences: countFacet(incidents, 'consequences'),
    settings: countFacet(incidents, 'settings'),
    settingHours: hoursByLocation(exposure.timetable, exposure.days),
  };
  const behaviors = [...incidentsByBehavior(incidents)]
    .map(([name, own]) => figuresOf(name, own, counts, exposure))
    .sort((a, b) => b.n - a.n || a.name.localeCompare(b.name));
  return {
    incidents: incidents.length,
    behaviors,
    chains: commonestFirst(behaviors.flatMap(({ chains }) => chains)),
    findings: findingsOf(incidents, behaviors, exposure),
    tooFew: tooFewToSay(behaviors),
  };
}

function incidentsByBehavior(incidents: readonly Incident[]): Map<string, Incident[]> {
  const groups = new Map<string, Incident[]>();
  for (const incident of incidents) {
    for (const name of incident.behaviors) {
      const own = groups.get(name);
      if (own) own.push(incident);
      else groups.set(name, [incident]);
    }
  }
  return groups;
}

function figuresOf(
  name: string,
  own: readonly Incident[],
  all: Record<Facet, FacetCounts> & { settingHours: LocationHours[] },
  { days, timetable, watched }: Exposure,
): BehaviorFigures {
  // What was noted on a day without school, or while the student was away, is counted beside: it goes into no rate.
  const here = new Set(days);
  const present = days.length === 0 ? own : own.filter(({ on }) => here.has(on));
  const dates = present.map((incident) => incident.on);
  const when = whenGrid(present, timetable, days);
  return {
    name,
    n: own.length,
    perSchoolDay: rateOf(present.length, days.length),
    onOtherDays: own.length - present.length,
    perHourObserved: ratePerHourObserved(watched.filter((stretch) => stretch.behavior === name)),
    when,
    parts: byPart(when.cells),
    weekdays: ratesByWeekday(dates, days),
    months: ratesByMonth(dates, days),
    weeks: ratesByWeek(dates, days),
    quarterHours: byQuarterHour(own),
    observers: byObserver(own),
    antecedents: facetShares(own, all.antecedents),
    consequences: facetShares(own, all.consequences),
    settings: facetShares(own, all.settings),
    settingHours: all.settingHours,
    chains: chainsThrough(name, own),
    functions: functionWeights(own),
    durations: durationsOf(own),
    intensities: intensitiesOf(own),
  };
}
