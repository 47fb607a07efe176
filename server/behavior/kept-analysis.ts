import { LRUCache } from 'lru-cache';
import { analyseBehavior, type BehaviorAnalysis } from '~/core/behavior/analysis';
import type { Exposure } from '~/core/behavior/rates';
import type { AnalysedIncident } from './analysed';

/** So many stretches and filters of one student’s incidents are kept. */
const KEPT = 8;
const known = new WeakMap<readonly AnalysedIncident[], LRUCache<string, BehaviorAnalysis>>();

/**
 * The analysis of some of a student’s incidents. Dealing the incidents two thousand times takes a while, so it is done once for as long as the incidents,
 * the filter and the days are the same.
 *
 * @param all  the student’s incidents as `analysedIncidents` gives them: the same list as long as nothing was written
 * @param asked  which of them, and in which stretch: what tells one analysis from another
 */
export function keptAnalysis(
  all: readonly AnalysedIncident[],
  some: readonly AnalysedIncident[],
  exposure: Exposure,
  asked: unknown,
): BehaviorAnalysis {
  const of = known.get(all) ?? new LRUCache<string, BehaviorAnalysis>({ max: KEPT });
  known.set(all, of);
  const { days, timetable, watched } = exposure;
  const key = JSON.stringify([asked, days, timetable, watched]);
  const analysis = of.get(key) ?? analyseBehavior(some, exposure);
  of.set(key, analysis);
  return analysis;
}
