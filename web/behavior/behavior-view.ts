import { analyseBehavior, type BehaviorFigures } from '~/core/behavior/analysis';
import { likelihoodByPart } from '~/core/behavior/conditional';
import {
  type DidItHelp,
  didItHelp,
  helpSentence,
  perHourObserved,
  perSchoolDay,
  withinPhase,
} from '~/core/behavior/did-it-help';
import { exposureUnder } from '~/core/behavior/exposure';
import { incidentsBehind } from '~/core/behavior/filter';
import { carriedByFew, type FindingAbout, findingTitle } from '~/core/behavior/findings';
import { compareRates, timesAsMany } from '~/core/behavior/rates';
import type { FacetShare } from '~/core/behavior/shares';
import type { IsoDate } from '~/core/calendar/iso-date';
import { type SchoolCalendar, schoolDays } from '~/core/calendar/school-days';
import { schoolYearStart } from '~/core/calendar/school-year';
import { defined } from '~/core/defined';
import type { Choice } from '~/core/entries/incidents/choice';
import { coefficient, lengthOfTime, percent, rateFigure } from '~/core/words/counting';
import type { StudentBehavior } from '~/server/behavior/behavior';
import { keptAnalysis } from '~/server/behavior/kept-analysis';
import { checkOf } from './check-options';
import { filterFrom, type IncidentSearch, idsByName, searchText } from './search';
import { behaviorViewWords } from './words';

/** What the page of a student’s behavior is asked for, besides which incidents. */
export interface BehaviorAsked {
  studentId: string;
  search: IncidentSearch;
  /** Id of a phase, or `before`. */
  phase: string | null;
  /** A second stretch of dates, to be held against the first. */
  beside: { from: IsoDate; to: IsoDate } | null;
  per: DidItHelp['per'];
}

/** A count with its share, and which incidents it is. */
export interface SharedRow {
  name: string;
  n: number;
  share: number;
  said: string;
  others: string;
  to: string;
}

/**
 * Everything that the page of a student’s behavior shows, from the incidents it asks for. Every figure carries the address of the
 * incidents behind it.
 */
export function behaviorView(
  of: StudentBehavior,
  asked: BehaviorAsked,
  when: { calendar: SchoolCalendar; today: IsoDate },
) {
  const { choices, naming, timetable, people } = of;
  const { search } = asked;
  const idOf = idsByName(choices);
  const since = of.since ?? when.today;
  const shownBehaviors = behaviorsToShow(of);
  const chosen = choices.find(({ id }) => id === search.behavior) ?? shownBehaviors[0]?.choice;
  const standing = chosen && (naming.choices.get(chosen.id) ?? chosen);
  const phases = of.phases.filter(({ behaviorId }) => behaviorId === null || behaviorId === standing?.id);
  // Earlier years are a matter of asking: what is looked at first is this school year.
  const begins = laterOf(since, schoolYearStart(when.today));
  const range = rangeOf(asked, phases, { from: search.from ?? begins, to: search.to ?? when.today });
  const days = schoolDays(range.from, range.to, when.calendar);
  const { location, observer } = filterFrom(search, naming);
  const inRange = incidentsBehind(of.incidents, { ...range, location, observer }, timetable);
  const watched = of.watched.filter(({ on }) => range.from <= on && on <= range.to);
  const exposure = exposureUnder({ location, observer }, { days, timetable, watched });
  const analysis = keptAnalysis(of.incidents, inRange, exposure, [range, location, observer]);
  const figures = analysis.behaviors.find(({ name }) => name === standing?.name) ?? null;
  const base = { behavior: standing?.id, location: search.location, observer: search.observer, ...range };
  const to = (more: Partial<IncidentSearch>) =>
    `/students/${asked.studentId}/incidents?${searchText({ ...base, ...more })}`;
  const toAbout = (about: FindingAbout) =>
    to({
      ...{ part: about.part, weekday: about.weekday, month: about.month },
      ...(about.antecedent && { antecedent: idOf('antecedent', about.antecedent) }),
      ...(about.consequence && { consequence: idOf('consequence', about.consequence) }),
      ...(about.location && { location: idOf('location', about.location) }),
    });
  const own = analysis.findings.filter(({ about }) => about.behavior === standing?.name);
  return {
    behaviors: shownBehaviors.map(({ choice: { id, name }, n }) => ({ id, name, n })),
    chosen: standing && { id: standing.id, name: standing.name, words: standing.words, unlike: standing.unlike },
    range,
    schoolDays: exposure.days.length,
    daysAway: of.absences.filter((on) => range.from <= on && on <= range.to).length,
    incidents: figures?.n ?? 0,
    all: analysis.incidents,
    toAll: to({}),
    findings: own.map(({ about, sentence }) => ({ title: findingTitle(about), sentence, to: toAbout(about) })),
    tooFew: [
      ...analysis.tooFew.filter(({ behavior }) => behavior === standing?.name).map(({ sentence }) => sentence),
      ...(figures ? carriedByFew(figures) : []),
    ],
    figures: figures && figuresShown(figures, { idOf, to, people, phases, range, timetable, scale: scaleOf(choices) }),
    help: standing
      ? helpShown(of, standing, phases, asked.per, laterOf(since, helpBegins(phases, when.today)), when)
      : null,
    watched: watchedShown(of, standing?.name, range),
    check: location || observer ? null : checkOf(asked.studentId, of, range, when.calendar),
    beside:
      asked.beside && standing
        ? besideShown(of, standing.name, { location, observer }, [range, asked.beside], when.calendar, to)
        : null,
    filters: {
      settings: choices
        .filter(({ kind, mergedInto }) => kind === 'location' && mergedInto === null)
        .map(({ id, name }) => ({ id, name })),
      observers: [...new Set(of.incidents.map((incident) => incident.observer))].flatMap((id) =>
        id === null ? [] : [{ id, name: people.get(id) ?? '?' }],
      ),
      phases: phases.map(({ id, label }) => ({ id, name: label })),
    },
  };
}
export type BehaviorView = ReturnType<typeof behaviorView>;

const laterOf = (a: IsoDate, b: IsoDate): IsoDate => defined([a, b].toSorted()[1]);

/** Where what a change of support did is looked at from: the school year of the first one. */
const helpBegins = (phases: StudentBehavior['phases'], today: IsoDate) =>
  schoolYearStart(defined([...phases.map(({ startsOn }) => startsOn), today].toSorted()[0]));

/** The behaviors one can look at, the commonest first: those with incidents or counts, and those that are offered. */
function behaviorsToShow({ choices, incidents, watched }: StudentBehavior) {
  const counts = new Map<string, number>();
  for (const incident of incidents)
    for (const name of incident.behaviors) counts.set(name, (counts.get(name) ?? 0) + 1);
  const seen = new Set(watched.map(({ behavior }) => behavior));
  return choices
    .filter(({ kind, mergedInto }) => kind === 'behavior' && mergedInto === null)
    .map((choice) => ({ choice, n: counts.get(choice.name) ?? 0 }))
    .filter(({ choice, n }) => choice.state === 'offered' || n > 0 || seen.has(choice.name))
    .sort((a, b) => b.n - a.n);
}

/** The dates that are asked for, within the phase that is asked for. */
function rangeOf({ phase }: BehaviorAsked, phases: StudentBehavior['phases'], range: { from: IsoDate; to: IsoDate }) {
  const at = phases.findIndex(({ id }) => id === phase);
  return phase === 'before' || at >= 0 ? withinPhase(phases, at, range) : range;
}

interface Shown {
  idOf: ReturnType<typeof idsByName>;
  to: (more: Partial<IncidentSearch>) => string;
  people: Map<string, string>;
  phases: StudentBehavior['phases'];
  range: { from: IsoDate; to: IsoDate };
  timetable: StudentBehavior['timetable'];
  /** What the steps of the intensity scale are called, from the first. */
  scale: string[];
}

const scaleOf = (choices: StudentBehavior['choices']) =>
  choices
    .filter(({ kind, mergedInto }) => kind === 'intensity' && mergedInto === null)
    .map(({ name, words }) => (words ? `${name}, ${words}` : name));

function figuresShown(figures: BehaviorFigures, { idOf, to, people, phases, range, timetable, scale }: Shown) {
  const { when, parts, months, weeks, n } = figures;
  const weekdays = [...new Set(when.cells.map(({ weekday }) => weekday))].sort((a, b) => a - b);
  const highest = Math.max(0, ...when.cells.map(({ rate }) => rate ?? 0));
  const shares = (list: readonly FacetShare[], facet: 'antecedent' | 'consequence' | 'location') =>
    list.map((row): SharedRow => {
      const others = row.others.of === 0 ? '' : behaviorViewWords.withOtherBehaviorsOf(row.others.n, row.others.of);
      return {
        ...{ name: row.name, n: row.n, share: row.share, others },
        said: `${row.n} · ${percent(100 * row.share)}`,
        to: to({ [facet]: idOf(facet, row.name) }),
      };
    });
  return {
    perSchoolDay: figures.perSchoolDay,
    onOtherDays: figures.onOtherDays,
    perHourObserved: figures.perHourObserved,
    weekdays,
    when: parts.map(({ part, exposure, n: inPart }) => ({
      part,
      from:
        timetable
          .filter((block) => block.part === part)
          .map((block) => block.from)
          .sort()[0] ?? '',
      hours: exposure,
      n: inPart,
      cells: weekdays.map((weekday) => {
        const cell = when.cells.find((one) => one.part === part && one.weekday === weekday);
        return (
          cell && {
            weekday,
            ...heat(cell.rate, highest),
            n: cell.n,
            hours: cell.exposure,
            rate: cell.rate,
            to: to({ part, weekday }),
          }
        );
      }),
    })),
    outside: { n: when.outside, to: to({ outside: '1' }) },
    quarters: figures.quarterHours.map(({ from, n: inQuarter }) => ({ from, n: inQuarter, to: to({ quarter: from }) })),
    antecedents: shares(figures.antecedents, 'antecedent'),
    consequences: shares(figures.consequences, 'consequence'),
    settings: shares(figures.settings, 'location'),
    chains: figures.chains.slice(0, 6).map((chain) => ({
      ...chain,
      to: to({ antecedent: idOf('antecedent', chain.antecedent), consequence: idOf('consequence', chain.consequence) }),
    })),
    months: months.map((month) => ({ ...month, to: to({ month: month.month }) })),
    weeks: weeks.map((week) => ({ ...week, to: to({ week: week.monday }) })),
    phaseLines: phases
      .filter(({ startsOn }) => range.from < startsOn && startsOn <= range.to)
      .map(({ label, startsOn }) => ({ label, on: startsOn })),
    durations: figures.durations && { ...figures.durations, to: to({ timed: '1' }) },
    intensities: figures.intensities && {
      n: figures.intensities.n,
      levels: figures.intensities.levels.map((level) => ({
        ...level,
        name: scale[level.level - 1] ?? String(level.level),
        to: to({ intensity: level.level }),
      })),
    },
    functions: figures.functions.map((weight) => ({ ...weight, to: to({ function: idOf('function', weight.name) }) })),
    observers: figures.observers.map(({ observer, n: noted }) => ({
      ...{ name: people.get(observer) ?? '?', n: noted, share: noted / n },
      to: to({ observer }),
    })),
  };
}

const HEATS = 5;

/** How dark a cell is, 1 … 5; none where nothing happened. */
function heat(rate: number | null, highest: number): { heat: number | null } {
  if (!rate || highest === 0) return { heat: null };
  return { heat: Math.max(1, Math.ceil((HEATS * rate) / highest)) };
}

/** Each change of support with what came of it. */
function helpShown(
  of: StudentBehavior,
  { name, direction }: Pick<Choice, 'name' | 'direction'>,
  phases: StudentBehavior['phases'],
  per: DidItHelp['per'],
  since: IsoDate,
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
) {
  const watched = of.watched.filter(({ behavior }) => behavior === name);
  const byHour = per === 'hour' && watched.length > 0;
  const dates = of.incidents.filter(({ behaviors }) => behaviors.includes(name)).map(({ on }) => on);
  const amounts = byHour ? perHourObserved(watched) : perSchoolDay(dates, schoolDays(since, today, calendar));
  const help = didItHelp(amounts, phases, direction, byHour ? 'hour' : 'schoolDay');
  return {
    per: help.per,
    mayBeHour: watched.length > 0,
    phases: phases.map(({ id, label, startsOn }) => ({ id, label, startsOn })),
    points: help.points,
    comparisons: help.comparisons.map((comparison, i) => ({
      ...{ to: comparison.to, enough: comparison.enough },
      sentence: helpSentence(help, i),
      figures: [
        [behaviorViewWords.immediateChange, rateFigure(comparison.immediate)],
        ['NAP', coefficient(comparison.nap)],
        ['Tau-U', coefficient(comparison.tauU)],
        ['Before', rateFigure(help.rates[i]?.before.rate ?? null)],
        ['Since', rateFigure(help.rates[i]?.after.rate ?? null)],
      ] as [string, string][],
    })),
    figures: help.phases.map(({ name: label, n, median }) => ({ label, n, median })),
  };
}

/** Stretches of watching: those in which it did not occur are what makes this a probability. */
function watchedShown(of: StudentBehavior, name: string | undefined, { from, to }: { from: IsoDate; to: IsoDate }) {
  const own = of.watched.filter(({ behavior, on }) => behavior === name && from <= on && on <= to);
  if (own.length === 0) return null;
  const { base, antecedents } = likelihoodByPart(own);
  return {
    stretches: own.length,
    none: own.filter(({ count }) => count === 0).length,
    base:
      base &&
      `${base.n} of ${base.of} (${percent(100 * base.p)}; likely ${percent(100 * base.low)} to ${percent(100 * base.high)})`,
    parts: antecedents.map(({ antecedent, after }) => ({
      part: antecedent,
      said: behaviorViewWords.of(after.n, after.of, percent(100 * after.p)),
    })),
    counts: of.counts
      .filter((count) => of.naming.choices.get(count.behaviorId)?.name === name && from <= count.on && count.on <= to)
      .slice(0, 8)
      .map(({ id, on, part, count, minutes }) => ({
        id,
        on,
        said: behaviorViewWords.in(
          part ?? behaviorViewWords.outsideTheDay,
          count === 0 ? 'none' : count,
          lengthOfTime(60 * minutes),
        ),
      })),
  };
}

/** Two stretches of dates side by side. */
function besideShown(
  of: StudentBehavior,
  behavior: string,
  filter: { location: string | undefined; observer: string | undefined },
  ranges: [{ from: IsoDate; to: IsoDate }, { from: IsoDate; to: IsoDate }],
  calendar: SchoolCalendar,
  to: Shown['to'],
) {
  // Two ranges in, two sides out.
  const [first, second] = ranges.map((range) => {
    const days = schoolDays(range.from, range.to, calendar);
    const incidents = incidentsBehind(of.incidents, { ...filter, ...range }, of.timetable);
    const figures = analyseBehavior(incidents, { days, timetable: of.timetable, watched: [] }).behaviors.find(
      ({ name }) => name === behavior,
    );
    return { range, days: days.length, n: figures?.n ?? 0, antecedents: figures?.antecedents ?? [], to: to(range) };
  }) as [Side, Side];
  const rates = compareRates({ n: first.n, exposure: first.days }, { n: second.n, exposure: second.days });
  const times = timesAsMany(rates, 'a school day');
  const names = [...new Set([...first.antecedents, ...second.antecedents].map(({ name }) => name))];
  const shareIn = ({ antecedents }: Side, name: string) => {
    const row = antecedents.find((one) => one.name === name);
    return row ? `${row.n} · ${percent(100 * row.share)}` : '–';
  };
  return {
    sides: [first, second].map(({ range, days, n, to: link }, i) => ({
      ...{ range, days, n, to: link },
      rate: rateFigure((i === 0 ? rates.before : rates.after).rate),
    })),
    sentence: times ? behaviorViewWords.inTheSecondPeriod(times) : behaviorViewWords.theTwoCannotBeHeld,
    antecedents: names.map((name) => ({ name, first: shareIn(first, name), second: shareIn(second, name) })),
  };
}

interface Side {
  range: { from: IsoDate; to: IsoDate };
  days: number;
  n: number;
  antecedents: FacetShare[];
  to: string;
}
