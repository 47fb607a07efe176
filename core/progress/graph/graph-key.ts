import type { GoalGraph } from './goal-graph';

/** What the marks of a goal’s graph mean, of those that are on it: a key for the screen and for paper. */
export function graphKey({ aimLine, trend, target, dualCriterion, runs, phases }: GoalGraph): string {
  const points = runs.flat();
  const parts = [
    points.length > 0 && 'Solid: what was measured',
    aimLine && 'dotted: the aim line',
    trend && 'thin with its band: the trend of the present phase',
    dualCriterion && 'long dashes: what the phase before would have led to',
    points.some(({ isPartial }) => isPartial) && 'hollow: fewer than the criterion asks for',
    points.some(({ isBeyond }) => isBeyond) && 'open arrow: longer than the limit',
    target !== null && 'band: the target zone',
    phases.length > 0 && 'dashed upright: a change of support',
  ].filter((part): part is string => Boolean(part));
  const said = parts.join(' · ');
  return said === '' ? '' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
}
