import { weekdayName } from '../calendar/iso-date';
import { LEAST_NOTES } from '../entries/incidents/incident';
import { sum } from '../statistics/spread';
import { wilsonInterval } from '../statistics/wilson';
import { counted, figure, percent, rateFigure } from '../words/counting';
import type { BehaviorFigures } from './analysis';
import type { Chain } from './chains';
import type { MonthRate, Rate } from './rates';
import type { FacetShare } from './shares';

/** What a finding is about: also what to look for to see the notes behind it. */
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
  /** Notes behind it, of how many. */
  n: number;
  of: number;
  /** How much of them would be expected if nothing were special, 0 … 1. */
  expected: number;
  /** How far even the near end of the interval lies from what would be expected, 0 … 1. */
  strength: number;
}

export interface TooFew {
  behavior: string;
  n: number;
  sentence: string;
}

/**
 * What stands out in a behavior's notes, as sentences with their counts; the strongest first.
 *
 * Each holds a count against what would be expected if nothing were special: the part of the hours or days that it takes,
 * the share among the student's other behaviors, an even share where there are none, or for a chain the shares of its ends.
 * It is a finding only with five notes or more behind it and with the expected share outside of its 99% Wilson interval; its
 * strength is the distance between the two. Against the other behaviors Fisher's exact test must say so too (p ≤ .01), since
 * their share is a sample as well. The notes were searched for whatever stands out, so that some findings are chance: they are
 * to be looked at, not proofs.
 *
 * @see our own convention, from Wilson's interval; docs/measures.md, “Findings”
 */
export function findingsOf(figures: BehaviorFigures): Finding[] {
  const { name, n } = figures;
  if (n < LEAST_NOTES) return [];
  return [
    ...whenFindings(figures),
    ...figures.antecedents.map((share) => facetFinding(name, share, figures.antecedents.length, 'antecedent')),
    ...figures.consequences.map((share) => facetFinding(name, share, figures.consequences.length, 'consequence')),
    ...locationFindings(figures),
    ...figures.chains.map((chain) => chainFinding(figures, chain)),
    ...monthFindings(figures),
  ]
    .flatMap((finding) => finding ?? [])
    .sort((a, b) => b.strength - a.strength || b.n - a.n || a.sentence.localeCompare(b.sentence));
}

/** The behaviors of which nothing can be said yet. */
export function tooFewToSay(figures: readonly Pick<BehaviorFigures, 'name' | 'n'>[]): TooFew[] {
  return figures
    .filter(({ n }) => n < LEAST_NOTES)
    .map(({ name, n }) => ({
      behavior: name,
      n,
      sentence: `Too few to say: ${counted(n, 'note', 'notes')} of ${name}; ${LEAST_NOTES} are needed.`,
    }));
}

/** Dozens of things are looked at: a finding has to stand out at 99%, not at the usual 95%. */
export const SEARCH_Z = 2.5758;
const SEARCH_P = 0.01;
/** … and of single cells of the week there are many more: 99.9%. */
const CELL_Z = 3.2905;

/** What of a behavior’s notes too few carry to say anything of it. */
export function carriedByFew({
  n,
  durations,
  intensities,
  functions,
}: Pick<BehaviorFigures, 'n' | 'durations' | 'intensities' | 'functions'>): string[] {
  const few = (known: number, what: string) =>
    known > 0 && known < LEAST_NOTES
      ? [`${what}: ${counted(known, 'note carries one', 'notes carry one')}, of ${n}.`]
      : [];
  return [
    ...few(durations?.n ?? 0, 'Duration'),
    ...few(intensities?.n ?? 0, 'Intensity'),
    ...few(sum(functions.map(({ n: named }) => named)), 'Function'),
  ];
}

interface Contrast {
  n: number;
  of: number;
  expected: number;
}

/** How far the interval of n in `of` lies above what was expected (or below, where that is asked for). */
function strengthOf({ n, of, expected }: Contrast, { orBelow = false, z = SEARCH_Z } = {}): number {
  const { low, high } = wilsonInterval(n, of, z);
  return Math.max(low - expected, orBelow ? expected - high : 0);
}

function finding(contrast: Contrast, about: FindingAbout, sentence: string): Finding | null {
  const strength = strengthOf(contrast);
  return contrast.n >= LEAST_NOTES && strength > 0 ? { about, sentence, ...contrast, strength } : null;
}

function whenFindings({ name, when, parts, weekdays }: BehaviorFigures): (Finding | null)[] {
  const hours = sum(parts.map(({ exposure }) => exposure));
  const placed = sum(parts.map(({ n }) => n));
  const inHours = (rate: Rate, about: FindingAbout, words: string) =>
    hours === 0 || placed === 0
      ? null
      : finding(
          { n: rate.n, of: placed, expected: rate.exposure / hours },
          about,
          `${rate.n} of ${placed} notes of ${name} fall in ${words}, which takes ${percent((100 * rate.exposure) / hours)} of the hours: ${perHour(rate.rate)} there, ${perHour(rateOutside(rate, placed, hours))} at other times.`,
        );
  const inParts = parts.map((part) => inHours(part, { behavior: name, part: part.part }, part.part));
  const days = sum(weekdays.map(({ exposure }) => exposure));
  const notes = sum(weekdays.map(({ n }) => n));
  const onWeekdays = weekdays.map((day) =>
    days === 0 || notes === 0
      ? null
      : finding(
          { n: day.n, of: notes, expected: day.exposure / days },
          { behavior: name, weekday: day.weekday },
          `${day.n} of ${notes} notes of ${name} fall on a ${weekdayName(day.weekday)}: ${rateFigure(day.rate)} a day, ${rateFigure(rateOutside(day, notes, days))} on other school days.`,
        ),
  );
  // A single cell only where it says more than its row and its column.
  const wider = [...inParts, ...onWeekdays].flatMap((one) => one ?? []);
  const inCells = when.cells.map((cell) => {
    const found = inHours(
      cell,
      { behavior: name, weekday: cell.weekday, part: cell.part },
      `${cell.part} on ${weekdayName(cell.weekday)}s`,
    );
    const saysLess = wider.some(
      ({ about, strength }) =>
        (about.part === cell.part || about.weekday === cell.weekday) && strength >= (found?.strength ?? 0),
    );
    return found && !saysLess && strengthOf(found, { z: CELL_Z }) > 0 ? found : null;
  });
  return [...inParts, ...onWeekdays, ...inCells];
}

/** Places: against the hours the timetable has there, where it says; only where they say more than a part of the day. */
function locationFindings(figures: BehaviorFigures): (Finding | null)[] {
  const { name, settings, settingHours } = figures;
  const hours = sum(settingHours.map((place) => place.hours));
  const parts = whenFindings(figures).flatMap((one) => (one?.about.part ? [one.strength] : []));
  return settings.map((share) => {
    if (hours === 0) return facetFinding(name, share, settings.length, 'location');
    const expected = (settingHours.find(({ location }) => location === share.name)?.hours ?? 0) / hours;
    const found = finding(
      { n: share.n, of: share.of, expected },
      { behavior: name, location: share.name },
      `${shareSaid(name, share, 'was the place of')}; it takes ${percent(100 * expected)} of the hours.`,
    );
    return found && parts.every((strength) => strength < found.strength) ? found : null;
  });
}

const shareSaid = (behavior: string, { name, n, of, share, low, high }: FacetShare, verb: string) =>
  `“${name}” ${verb} ${n} of ${of} notes of ${behavior} (${percent(100 * share)}; likely ${percent(100 * low)} to ${percent(100 * high)})`;

function facetFinding(
  behavior: string,
  share: FacetShare,
  different: number,
  facet: 'antecedent' | 'consequence' | 'location',
): Finding | null {
  const compares = share.others.of >= LEAST_NOTES;
  const expected = compares ? share.others.n / share.others.of : 1 / different;
  const verb = facet === 'antecedent' ? 'came before' : facet === 'consequence' ? 'followed' : 'was the place of';
  const others = compares
    ? `of the other behaviors' notes, ${share.others.n} of ${share.others.of}`
    : `an even share among ${different} would be ${percent(100 * expected)}`;
  if (compares && (share.p ?? 0) > SEARCH_P) return null;
  return finding(
    { n: share.n, of: share.of, expected },
    { behavior, [facet]: share.name },
    `${shareSaid(behavior, share, verb)}; ${others}.`,
  );
}

function chainFinding({ name, antecedents, consequences }: BehaviorFigures, chain: Chain): Finding | null {
  const shareOf = (list: readonly FacetShare[], of: string) => list.find((one) => one.name === of)?.share ?? 0;
  const expected = shareOf(antecedents, chain.antecedent) * shareOf(consequences, chain.consequence);
  return finding(
    { n: chain.n, of: chain.of, expected },
    { behavior: name, antecedent: chain.antecedent, consequence: chain.consequence },
    `“${chain.antecedent}”, then ${name}, then “${chain.consequence}”: ${chain.n} of ${chain.of} notes, where the two would meet in ${figure(expected * chain.of)} by chance.`,
  );
}

/** Months with fewer school days are too short to be held against others. */
const LEAST_DAYS = 5;

function monthFindings({ name, months }: BehaviorFigures): (Finding | null)[] {
  const [before, last] = months.filter(({ exposure }) => exposure >= LEAST_DAYS).slice(-2);
  if (!before || !last) return [];
  const of = before.n + last.n;
  if (of < LEAST_NOTES) return [];
  const contrast = { n: last.n, of, expected: last.exposure / (before.exposure + last.exposure) };
  const strength = strengthOf(contrast, { orBelow: true });
  if (strength <= 0) return [];
  const isMore = (last.rate ?? 0) > (before.rate ?? 0);
  const sentence = `${isMore ? 'More' : 'Fewer'} notes of ${name} in ${monthName(last)} than in ${monthName(before)}: ${inDays(last)} against ${inDays(before)}.`;
  return [{ about: { behavior: name, month: last.month }, sentence, ...contrast, strength }];
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
