import { countSchoolDays, type SchoolCalendar } from '../calendar/school-days';
import { directionOf, type GoalDefinition } from '../goals/goal';
import { measureOf } from '../measures/measure';
import { changeFigure, coefficient, counted, percent, signed } from '../words/counting';
import { POINTS_FOR_DISTANCE } from './decision';
import { luckOf, luckSentences, observationDays, ofHundred } from './luck';
import { comparePhases, type EnoughPoints, namedPhases, phaseFigures } from './phases/phases';
import { leastVarianceOf, type Progress } from './progress';
import type { Said } from './sentences';
import { mannKendall } from './trend/mann-kendall';
import { theilSen } from './trend/theil-sen';

/** A chance as it is printed in a report: “p = 0.03”, “p < 0.001”. */
const probability = (p: number) => (p < 0.001 ? 'p < 0.001' : `p = ${p.toFixed(p < 0.1 ? 3 : 2)}`);

const range = (low: number, high: number) => `${signed(low)} to ${signed(high)}`;

/** How what a goal’s page says is computed, with methods and coefficients: for whoever wants to check it. */
export function computedSaid(goal: GoalDefinition, progress: Progress): Said[] {
  return [...trendComputed(goal, progress), ...decisionComputed(goal), ...phasesComputed(goal, progress)];
}

function trendComputed(goal: GoalDefinition, { trend, present }: Progress): Said[] {
  const measure = measureOf(goal.measure);
  if (measure.accumulates || !trend) return [];
  const robust = theilSen(present);
  const test = mannKendall(present);
  const beside =
    robust && test
      ? ` Beside it, not weighted: Theil–Sen ${signed(robust.slopePerWeek)} a week (Sen’s interval ${range(robust.low, robust.high)}), Mann–Kendall ${probability(test.p)}.`
      : '';
  return [
    {
      title: 'Trend of the present phase',
      text: `Weighted least squares of ${counted(present.length, 'score', 'scores')} on their days, each weighing its ${measure.weightNoun.many}: ${signed(trend.slopePerWeek)} ${measure.axis.change} a week, 95% interval ${range(trend.low, trend.high)}. Neighbouring scores are alike by ${coefficient(trend.correlation)}, so they are worth ${Math.round(trend.effectivePoints)} unrelated ones. On the last day the line lies between ${changeFigure(trend.levelLow)} and ${changeFigure(trend.levelHigh)}.${beside}`,
    },
  ];
}

const decisionComputed = ({ measure }: GoalDefinition): Said[] => [
  {
    title: 'Decision',
    text: measureOf(measure).accumulates
      ? 'The four-point rule (Deno & Mirkin 1977): the last four totals all on one side of the aim line.'
      : `With fewer than ${POINTS_FOR_DISTANCE} scores in the present phase the four-point rule (Deno & Mirkin 1977), provisional. From ${POINTS_FOR_DISTANCE} on the mean distance of the last 20 scores to the aim line, weighted, with its 95% interval: wholly on one side it is behind or ahead.`,
  },
];

const enoughWords: Record<EnoughPoints, string> = {
  enough: '',
  withReservations: ' Fewer than 5 scores in one of them: with reservations.',
  tooFew: ' Fewer than 3 scores in one of them: too few to rely on.',
};

/** The table printed with the method, where it asks for another number. */
const alsoPublished = ({ needed, published }: { needed: number; published: number | null }) =>
  published === null || published === needed ? '' : ` by the exact binomial, ${published} by the published table`;

/** The last two phases with scores, one against the other; and how steady the present one is. */
function phasesComputed(goal: GoalDefinition, { points }: Progress): Said[] {
  const measured = namedPhases(goal, points).filter((phase) => phase.points.length > 0);
  const [before, after] = measured.slice(-2);
  const last = measured.at(-1);
  const { isShare, axis } = measureOf(goal.measure);
  const figures = last && phaseFigures(last, isShare);
  const said: Said[] = [];
  if (figures && figures.stable !== null) {
    said.push({
      title: `How steady “${figures.name}” is`,
      text: `${percent(100 * figures.withinQuarter)} of its ${figures.n} scores lie within a quarter of their median: ${figures.stable ? 'steady' : 'not steady'} (at least 80% would be).`,
    });
  }
  if (!before || !after) return said;
  const found = comparePhases(before, after, directionOf(goal.criterion), leastVarianceOf(isShare, points));
  const dual = found.dualCriterion
    ? ` Conservative dual-criterion lines (Fisher, Kelley & Lomas 2003): ${found.dualCriterion.beyond} of ${after.points.length} scores lie beyond both, ${found.dualCriterion.needed} are needed${alsoPublished(found.dualCriterion)}.`
    : '';
  const level = found.levelChange
    ? ` At the line the level changes by ${signed(found.levelChange.value)} ${axis.change} (${range(found.levelChange.low, found.levelChange.high)})`
    : '';
  const slope =
    level && found.slopeChange
      ? `, the slope by ${signed(found.slopeChange.value)} a week (${range(found.slopeChange.low, found.slopeChange.high)}).`
      : level && '.';
  const ratio = found.logResponseRatio
    ? ` Log response ratio ${coefficient(found.logResponseRatio.value)} (SE ${coefficient(found.logResponseRatio.se)}).`
    : '';
  said.push({
    title: `${after.name} after ${before.name}`,
    text: `${percent(100 * found.nap)} of all pairs of scores improve: NAP ${coefficient(found.nap)} (${coefficient(found.napLow)} to ${coefficient(found.napHigh)}, Newcombe 2006), PND ${percent(100 * found.pnd)}, Tau-U ${coefficient(found.tauU)} (the first phase’s trend taken off), baseline-corrected Tau ${coefficient(found.baselineCorrectedTau)}.${level}${slope}${ratio}${dual}${enoughWords[found.enough]}`,
  });
  return said;
}

/** How easily luck would meet a goal’s criterion, over the plan’s observation days; nothing where that cannot be told. */
export function luckSaid(goal: GoalDefinition, calendar: SchoolCalendar): string[] {
  const days = observationDays(countSchoolDays(goal.startsOn, goal.targetOn, calendar), goal.plannedGap);
  const luck = luckOf(goal, days);
  return luck ? luckSentences(luck, goal) : [];
}

/** From this chance on a goal that is met is doubted where it is shown: our own rule. */
const DOUBT = 0.2;

/**
 * What luck may have to do with a goal that is met: how likely a student short of the target would have met it in as many observation days.
 *
 * @returns null for a goal that is not met, where luck cannot be counted out, and where it is unlikely
 */
export function luckDoubt(
  goal: GoalDefinition,
  { mastery, points }: Pick<Progress, 'mastery' | 'points'>,
): Said | null {
  const { metOn } = mastery;
  if (metOn === null) return null;
  const luck = luckOf(goal, points.filter(({ on, isBaseline }) => !isBaseline && on <= metOn).length);
  if (!luck || luck.chance < DOUBT) return null;
  const days = counted(luck.days, 'observation day', 'observation days');
  return {
    title: 'Luck may have met it',
    text: `Of 100 students who are truly at ${Math.round(luck.level)}%, ${ofHundred(luck.chance)} would have met it within these ${days}. What comes after that day tells more.`,
  };
}
