import type { IsoDate } from '../calendar/iso-date';
import { shortDate } from '../calendar/iso-date';
import { type FidelityMarks, fidelityOf } from '../entries/fidelity';
import type { Outcome } from '../entries/observation';
import type { GoalDefinition } from '../goals/goal';
import { type Retirement, retirementWords } from '../goals/retirement-words';
import type { MeasureDefinition } from '../measures/measure';
import { own } from '../measures/measure-of-goal';
import { breakDownTrials, trials } from '../measures/trials/trials';
import { agreementSaid } from '../progress/agreement-said';
import type { Progress } from '../progress/progress';
import { counted, percent } from '../words/counting';

/** A session with what a report says of it beside its figure. */
export interface FurtherSession {
  id: string;
  on: IsoDate;
  outcome: Outcome;
  fidelity: FidelityMarks | null;
  /** The session that a second observer saw too, on their entry; else null. */
  pairsWith: string | null;
  /** How the goal was measured then. */
  measure: MeasureDefinition;
  /** Whether that can be put together with how it is measured now. */
  isAsNow: boolean;
}

interface Around {
  goal: Pick<GoalDefinition, 'measure' | 'phases' | 'criterion'> & {
    retired?: { on: IsoDate; how: Retirement } | null;
  };
  progress: Pick<Progress, 'points'>;
  /** Up to the end of the report, in order of date and time, those of second observers too. */
  sessions: readonly FurtherSession[];
  from: IsoDate;
  until: IsoDate;
}

/** What a progress report says of a goal besides the figure, each by its name and only where there is something to say. */
export function furtherFacts(around: Around): [name: string, value: string][] {
  const said: [string, string | null][] = [
    ['Retired', retiredSaid(around)],
    ['Support levels', levelsSaid(around)],
    ['Partial', partialSaid(around)],
    ['Agreement', agreed(around)],
    ['Fidelity', carriedOut(around)],
  ];
  return said.flatMap(([name, value]) => (value === null ? [] : [[name, value] satisfies [string, string]]));
}

function retiredSaid({ goal: { retired }, until }: Around): string | null {
  return retired && retired.on <= until ? `${retirementWords[retired.how]}, on ${shortDate(retired.on)}.` : null;
}

/** The opportunities of the period together, by the help they took, with their counts. */
function levelsSaid({ goal: { measure }, sessions, from }: Around): string | null {
  if (measure.kind !== 'trials') return null;
  const [first, ...more] = sessions.flatMap(({ on, pairsWith, isAsNow, outcome }) =>
    on < from || pairsWith !== null || !isAsNow || outcome.data === null ? [] : [own(trials, outcome.data)],
  );
  if (!first) return null;
  const parts = breakDownTrials(measure, trials.pool(measure, [first, ...more])).filter(({ n }) => n > 0);
  const n = parts.reduce((sum, part) => sum + part.n, 0);
  if (n === 0) return null;
  const levels = parts.map(({ label, n: times, share }) => `${label} ${times} (${percent(share)})`).join(', ');
  const of = `${counted(n, 'opportunity', 'opportunities')} in ${counted(1 + more.length, 'session', 'sessions')}`;
  return `${levels}, of ${of} in this period.`;
}

function partialSaid({ goal: { criterion }, progress: { points } }: Around): string | null {
  const partial = points.filter(({ weight }) => weight < criterion.minimumOpportunities).length;
  if (partial === 0) return null;
  return `${partial} of ${counted(points.length, 'point holds', 'points hold')} less than the ${criterion.minimumOpportunities} that the criterion asks for; they count neither for nor against it.`;
}

function agreed({ goal, sessions }: Around): string | null {
  const byId = new Map(sessions.map((session) => [session.id, session]));
  const pairs = sessions.flatMap((second) => {
    const first = second.pairsWith === null ? undefined : byId.get(second.pairsWith);
    return first ? [[first, second] as const] : [];
  });
  const alone = sessions.filter(({ pairsWith }) => pairsWith === null);
  const said = agreementSaid(goal, pairs, alone);
  return said.length === 0 ? null : said.join(' ');
}

/** How far the support in place at the end was carried out. */
function carriedOut({ goal: { measure, phases }, sessions, until }: Around): string | null {
  const phase = phases.findLast(({ startsOn }) => startsOn <= until);
  if (!phase) return null;
  const seen = sessions
    .filter(({ on, pairsWith, isAsNow }) => on >= phase.startsOn && pairsWith === null && isAsNow)
    .map(({ on, fidelity, outcome }) => ({ on, marks: fidelity, outcome }))
    .reverse();
  const found = fidelityOf(measure, seen);
  if (!found) return null;
  const said = `${found.said} of ${counted(found.of, 'session', 'sessions')}`;
  return `${phase.label}, since ${shortDate(phase.startsOn)}: ${percent(found.share)} of its steps were done, as said in ${said}.`;
}
