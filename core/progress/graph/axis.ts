import type { GoalDefinition } from '../../goals/goal';
import { measureOf } from '../../measures/measure';
import type { Progress } from '../progress';

/** The largest value a goal's graph shows, and the unit of its figures. */
export function axisOf(goal: GoalDefinition, { points, baseline }: Progress): { max: number; unit: string } {
  const { max, unit } = measureOf(goal.measure).axis;
  if (max !== null) return { max, unit };
  const largest = points.reduce(
    (most, { value }) => Math.max(most, value),
    Math.max(goal.target, baseline?.value ?? 0),
  );
  return { max: roundUp(largest), unit };
}

/** The next of 1, 2, 5, 10, 20, 50 … that leaves a little room, or the multiple of a fifth of it: five even steps. */
function roundUp(largest: number): number {
  if (largest <= 0) return 5;
  const step = 10 ** Math.floor(Math.log10(largest / 5));
  const fit = [1, 2, 3, 4, 5, 6, 8, 10].find((some) => some * step * 5 >= largest) ?? 10;
  return fit * step * 5;
}
