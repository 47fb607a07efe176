import { type IsoDate, weekdayName } from '../calendar/iso-date';
import { type Incident, LEAST_INCIDENTS } from '../entries/incidents/incident';
import { sum } from '../statistics/spread';
import { counted, percent, rateFigure } from '../words/counting';
import type { BehaviorFigures } from './analysis';
import type { Family, Standing } from './deal';
import { type Dealt, dealt, keyOf } from './permutation';
import { type Exposure, type MonthRate, monthPair, type Rate } from './rates';
import type { FacetShare } from './shares';

/** What a finding is about: also what to look for to see the incidents behind it. */
export interface FindingAbout {
  behavior: string;
  part?: string;
  weekday?: number;
  antecedent?: string;
  consequence?: string;
  location?: string;
  /** `YYYY-MM` */
  month?: string;
}

export interface Finding {
  about: FindingAbout;
  sentence: string;
  /** Incidents behind it, of how many. */
  n: number;
  of: number;
  /** How much of them luck brings on the average, 0 … 1. */
  expected: number;
  /** How many standard deviations it lies beyond what luck brings on the average. */
  strength: number;
}

export interface TooFew {
  behavior: string;
  n: number;
  sentence: string;
}

/**
 * What stands out in a student's incidents, as sentences with their counts; the surest first.
 *
 * A count is a finding with five incidents or more behind it, where luck brings anything in its family that stands out as much too seldom: a
 * twentieth of the page, split among the families that are looked at. So of a hundred students whose incidents mean nothing at most five or so
 * have a finding at all.
 *
 * @param figures  of each behavior, for the sentences
 * @see permutation.ts for what luck is; docs/measures.md, “Findings”
 */
export function findingsOf(
  incidents: readonly Incident[],
  figures: readonly BehaviorFigures[],
  exposure: Exposure,
): Finding[] {
  const told = figures.filter(({ n }) => n >= LEAST_INCIDENTS);
  const luck = dealt(
    incidents,
    told.map(({ name }) => name),
    exposure,
  );
  const families = Object.values(luck).filter((family) => family.size > 0).length;
  const yardstick = PAGE_P / Math.max(1, families);
  const found = told.flatMap((one) => [
    ...whenFindings(one, luck),
    ...facetFindings(one, 'antecedent', luck.antecedent),
    ...facetFindings(one, 'consequence', luck.consequence),
    ...locationFindings(one, luck),
    ...monthFindings(one, exposure.days, luck),
  ]);
  return withoutNarrower(found.filter(({ n, p }) => n >= LEAST_INCIDENTS && p <= yardstick))
    .map(({ p: _, ...finding }) => finding)
    .sort((a, b) => b.strength - a.strength || b.n - a.n || a.sentence.localeCompare(b.sentence));
}

/** How often a page may find something where there is nothing. */
const PAGE_P = 0.05;

type Candidate = Finding & { p: number };

/** A place only where it says more than a part of the day. */
function withoutNarrower(found: readonly Candidate[]): Candidate[] {
  return found.filter(
    ({ about, strength }) =>
      !about.location ||
      !found.some(
        ({ about: other, strength: its }) => other.part && other.behavior === about.behavior && its >= strength,
      ),
  );
}

/** The behaviors of which nothing can be said yet. */
export function tooFewToSay(figures: readonly Pick<BehaviorFigures, 'name' | 'n'>[]): TooFew[] {
  return figures
    .filter(({ n }) => n < LEAST_INCIDENTS)
    .map(({ name, n }) => ({
      behavior: name,
      n,
      sentence: `Too few to say: ${counted(n, 'incident', 'incidents')} of ${name}; ${LEAST_INCIDENTS} are needed.`,
    }));
}

/** What of a behavior’s incidents too few carry to say anything of it. */
export function carriedByFew({
  n,
  durations,
  intensities,
  functions,
}: Pick<BehaviorFigures, 'n' | 'durations' | 'intensities' | 'functions'>): string[] {
  const few = (known: number, what: string) =>
    known > 0 && known < LEAST_INCIDENTS
      ? [`${what}: ${counted(known, 'incident has one', 'incidents have one')}, of ${n}.`]
      : [];
  return [
    ...few(durations?.n ?? 0, 'Duration'),
    ...few(intensities?.n ?? 0, 'Intensity'),
    ...few(sum(functions.map(({ n: named }) => named)), 'Function'),
  ];
}

/** A candidate from how it stands among what luck brings; none where that was not looked at. */
function candidate(
  standing: Standing | undefined,
  { n, of }: { n: number; of: number },
  about: FindingAbout,
  sentence: string,
): Candidate[] {
  if (!standing || of === 0) return [];
  const { expected, z, p } = standing;
  return [{ about, sentence, n, of, expected: Math.min(1, expected / of), strength: z, p }];
}

function whenFindings({ name, parts, weekdays }: BehaviorFigures, luck: Dealt): Candidate[] {
  const hours = sum(parts.map(({ exposure }) => exposure));
  const placed = sum(parts.map(({ n }) => n));
  const inHours = (rate: Rate, key: string, about: FindingAbout, words: string) =>
    candidate(
      luck.part.get(keyOf(name, key)),
      { n: rate.n, of: placed },
      about,
      `${rate.n} of ${placed} incidents of ${name} fall in ${words}, which takes ${percent((100 * rate.exposure) / hours)} of the hours: ${perHour(rate.rate)} there, ${perHour(rateOutside(rate, placed, hours))} at other times.`,
    );
  const days = sum(weekdays.map(({ exposure }) => exposure));
  const incidents = sum(weekdays.map(({ n }) => n));
  return [
    ...parts.flatMap((part) => inHours(part, part.part, { behavior: name, part: part.part }, part.part)),
    ...weekdays.flatMap((day) =>
      candidate(
        luck.weekday.get(keyOf(name, day.weekday)),
        { n: day.n, of: incidents },
        { behavior: name, weekday: day.weekday },
        `${day.n} of ${incidents} incidents of ${name} fall on a ${weekdayName(day.weekday)}: ${rateFigure(day.rate)} a day, ${rateFigure(rateOutside(day, incidents, days))} on other school days.`,
      ),
    ),
  ];
}

/** Places against the hours the timetable has there, where it says. */
function locationFindings({ name, settings, settingHours }: BehaviorFigures, luck: Dealt): Candidate[] {
  const hours = sum(settingHours.map((place) => place.hours));
  return settings.flatMap((share) => {
    const own = settingHours.find(({ location }) => location === share.name)?.hours ?? 0;
    return candidate(
      luck.location.get(keyOf(name, share.name)),
      { n: share.n, of: share.of },
      { behavior: name, location: share.name },
      `${shareSaid(name, share, 'was the place of')}; it takes ${percent((100 * own) / Math.max(hours, own))} of the hours.`,
    );
  });
}

const shareSaid = (behavior: string, { name, n, of, share }: FacetShare, verb: string) =>
  `“${name}” ${verb} ${n} of ${of} incidents of ${behavior} (${percent(100 * share)})`;

function facetFindings(figures: BehaviorFigures, facet: 'antecedent' | 'consequence', family: Family): Candidate[] {
  const { name: behavior } = figures;
  const verb = facet === 'antecedent' ? 'came before' : 'followed';
  return figures[`${facet}s`].flatMap((share) =>
    candidate(
      family.get(keyOf(behavior, share.name)),
      share,
      { behavior, [facet]: share.name },
      `${shareSaid(behavior, share, verb)}; of the other behaviors' incidents, ${share.others.n} of ${share.others.of}.`,
    ),
  );
}

function monthFindings({ name, months }: BehaviorFigures, days: readonly IsoDate[], luck: Dealt): Candidate[] {
  const pair = monthPair(days);
  const [before, last] = [pair?.before, pair?.last].map((one) => months.find(({ month }) => month === one?.month));
  if (!before || !last) return [];
  const of = before.n + last.n;
  const standing = luck.month.get(keyOf(name));
  if (!standing || of < LEAST_INCIDENTS) return [];
  const isMore = (last.rate ?? 0) > (before.rate ?? 0);
  const sentence = `${isMore ? 'More' : 'Fewer'} incidents of ${name} in ${monthName(last)} than in ${monthName(before)}: ${inDays(last)} against ${inDays(before)}.`;
  // What is counted is both months together: few in the last one may be what stands out.
  const expected = last.exposure / (before.exposure + last.exposure);
  return [
    {
      about: { behavior: name, month: last.month },
      sentence,
      n: last.n,
      of,
      expected,
      strength: standing.z,
      p: standing.p,
    },
  ].map((one) => ({ ...one, n: isMore ? one.n : Math.max(one.n, LEAST_INCIDENTS) }));
}

const monthFormat = new Intl.DateTimeFormat('en-US', { month: 'long', timeZone: 'UTC' });
const monthName = ({ month }: MonthRate) => monthFormat.format(Date.parse(`${month}-01T00:00:00Z`));
const inDays = ({ n, exposure, rate }: Rate) =>
  `${n} in ${counted(exposure, 'school day', 'school days')} (${rateFigure(rate)} a day)`;

const perHour = (rate: number | null) => `${rateFigure(rate)} an hour`;

function rateOutside({ n, exposure }: Rate, all: number, allExposure: number): number | null {
  return allExposure > exposure ? (all - n) / (allExposure - exposure) : null;
}

/**
 * What a finding is about, as a heading.
 *
 * @example findingTitle({ behavior: 'Left the bench', part: 'Workshop', weekday: 1 }) // 'Workshop on Mondays'
 */
export function findingTitle({ part, weekday: day, antecedent, consequence, location, month }: FindingAbout): string {
  if (part && day) return `${part} on ${weekdayName(day)}s`;
  if (part) return part;
  if (day) return `${weekdayName(day)}s`;
  if (antecedent && consequence) return `${antecedent} → ${consequence}`;
  if (antecedent) return `${antecedent} before it`;
  if (consequence) return `${consequence} after it`;
  if (location) return `In: ${location}`;
  return month ? `In ${monthFormat.format(Date.parse(`${month}-01T00:00:00Z`))}` : '';
}
