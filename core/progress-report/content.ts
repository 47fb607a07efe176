import { type IsoDate, longDate, shortDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import type { ObservedSession } from '../entries/observation';
import type { GoalDefinition } from '../goals/goal';
import type { Retirement } from '../goals/retirement-words';
import { decisionPlain } from '../progress/decision-plain';
import { decisionWords } from '../progress/decision-words';
import { type GoalGraph, goalGraph } from '../progress/graph/goal-graph';
import { criterionSentence } from '../progress/mastery';
import { progressOf } from '../progress/progress';
import { nowText, valueSaid, wayWords } from '../progress/sentences';
import { counted } from '../words/counting';
import type { RichText } from '../words/rich-text';
import { type FurtherSession, furtherFacts } from './further';

/** What a progress report says of one goal. All in words and figures: it must read the same years later. */
export interface GoalReport {
  goalId: string;
  number: string;
  shortName: string;
  wording: string;
  criterion: string;
  /** “40%, on Sep 14, 2026”; null while there is none. */
  baseline: string | null;
  now: string | null;
  target: string;
  /** “67% of the way from the baseline to the target”; null while the baseline or the present is unknown. */
  way: string | null;
  /** `means`, in plain words: reports that were issued earlier do not have it. */
  decision: { label: string; mark: string; sentence: string; means?: string };
  /** What there is besides: that it is retired, support levels, partial sessions, agreement, fidelity. Earlier reports do not have it. */
  further?: [name: string, value: string][];
  /** “14 observations by 3 people, 9 of them in this period”. */
  evidence: string;
  /** Observations within the period. */
  inPeriod: number;
  graph: GoalGraph | null;
  /** The teacher’s own words. */
  words: RichText;
}

export interface ProgressReport {
  student: { name: string; shortName: string; grade: string; groups: string[] };
  schoolName: string;
  caseManager: string;
  plan: { startsOn: IsoDate; endsOn: IsoDate };
  period: { label: string; from: IsoDate; to: IsoDate };
  goals: GoalReport[];
  /** In brief, a sentence each; none where behavior is not followed. */
  behavior: string[];
  /** The teacher’s words for the whole. */
  words: RichText;
  /** What a reader is not shown of it; said only to them. */
  leftOut?: string[];
}

interface ReportedGoal extends GoalDefinition {
  id: string;
  number: string;
  shortName: string;
  wording: string;
  retired?: { on: IsoDate; how: Retirement } | null;
}

/**
 * What a progress report says of a goal at the end of a period: nothing of what came later.
 *
 * @param sessions  the goal’s observations that count, in order of date and time
 * @param period  both ends included; `from` null for all that was observed since the goal began
 * @param today  when the period is not over, it is reported as of today
 * @param all  the sessions with what is said besides, those of second observers too
 */
export function goalReport(
  goal: ReportedGoal,
  sessions: readonly ObservedSession[],
  period: { from: IsoDate | null; to: IsoDate },
  words: RichText,
  { calendar, today, all = [] }: { calendar: SchoolCalendar; today: IsoDate; all?: readonly FurtherSession[] },
): GoalReport {
  const until = today < period.to ? today : period.to;
  const known = sessions.filter(({ on }) => on <= until);
  const progress = progressOf(goal, known, { calendar, today: until });
  const said = (value: number) => valueSaid(goal, value);
  const { baseline, decision } = progress;
  const from = period.from ?? '';
  const inPeriod = known.filter(({ on }) => on >= from).length;
  const people = new Set(known.flatMap(({ observer }) => observer ?? [])).size;
  return {
    goalId: goal.id,
    number: goal.number,
    shortName: goal.shortName,
    wording: goal.wording,
    criterion: criterionSentence(goal),
    baseline: baseline ? `${said(baseline.value)}, on ${longDate(baseline.on).replace(/^\w+, /, '')}` : null,
    now: nowText(goal, progress),
    target: `${said(goal.target)}, by ${longDate(goal.targetOn).replace(/^\w+, /, '')}`,
    way: wayWords(goal, progress),
    decision: {
      label: decision.label,
      mark: decisionWords[decision.is].mark,
      means: decisionPlain[decision.is],
      sentence: progress.points.length === 0 ? decision.reason : `${decision.reason} Trend: ${decision.trend}`,
    },
    evidence: evidenceWords(known.length, people, period.from === null ? null : inPeriod),
    inPeriod,
    further: furtherFacts({ goal, progress, sessions: all.filter(({ on }) => on <= until), from, until }),
    graph: progress.points.length === 0 ? null : goalGraph(goal, progress, [], until, period.to),
    words,
  };
}

function evidenceWords(all: number, people: number, inPeriod: number | null): string {
  if (all === 0) return 'No observation yet.';
  const by = people > 0 ? ` by ${counted(people, 'person', 'people')}` : '';
  const said = `${counted(all, 'observation', 'observations')}${by} since the plan began`;
  if (inPeriod === null) return `${said}.`;
  const some = inPeriod === all ? 'all' : inPeriod;
  return `${said}, ${inPeriod === 0 ? 'none' : some} of them in this period.`;
}

export interface Missing {
  goalId: string | null;
  text: string;
}

/** What a draft lacks, for whoever is about to issue it. Nothing of it forbids to. */
export function missingIn({ goals, period }: ProgressReport, today: IsoDate): Missing[] {
  const missing = goals.flatMap((goal): Missing[] => {
    const name = `${goal.number} ${goal.shortName}`;
    if (goal.inPeriod === 0) return [{ goalId: goal.goalId, text: `${name}: nothing was observed in this period.` }];
    if (goal.baseline === null) return [{ goalId: goal.goalId, text: `${name}: there is no baseline.` }];
    return [];
  });
  if (goals.length === 0) missing.push({ goalId: null, text: 'No goal is worked on.' });
  if (today < period.to) {
    missing.push({ goalId: null, text: `The period is not over: it ends on ${shortDate(period.to)}.` });
  }
  return missing;
}
