import type { IsoDate } from '../calendar/iso-date';
import type { Outcome } from '../entries/observation';
import type { GoalDefinition } from '../goals/goal';
import { agreementByPhase, phaseAgreementSentence } from '../measures/agreement/over-sessions';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import { phaseAt, phaseName } from './series';

/** A session of a goal as far as agreement goes. */
interface WatchedSession {
  on: IsoDate;
  outcome: Outcome;
  /** How the goal was measured then. */
  measure: MeasureDefinition;
}

/**
 * How far two observers of the same sessions agree, by phase, in sentences; nothing while no session was seen by two.
 *
 * @param pairs  sessions that were seen by two, each by one and by the other
 * @param sessions  all sessions, those of second observers left out
 */
export function agreementSaid(
  { phases }: Pick<GoalDefinition, 'phases'>,
  pairs: readonly (readonly [WatchedSession, WatchedSession])[],
  sessions: readonly { on: IsoDate }[],
): string[] {
  const phaseOf = ({ on }: { on: IsoDate }) => phaseName(phases, phaseAt(phases, on));
  const checked = pairs.flatMap(([first, second]) => {
    if (first.outcome.data === null || second.outcome.data === null) return [];
    const found = measureOf(first.measure).agreement(first.outcome.data, second.outcome.data);
    return found ? [{ phase: phaseOf(first), agreement: found.share }] : [];
  });
  if (checked.length === 0) return [];
  const counts = new Map<string, number>();
  for (const session of sessions) counts.set(phaseOf(session), (counts.get(phaseOf(session)) ?? 0) + 1);
  const named = phases.length > 0 ? [...counts.keys()] : ['Before'];
  return agreementByPhase(
    checked,
    named.map((phase) => ({ phase, n: counts.get(phase) ?? 0 })),
  ).map((phase) => phaseAgreementSentence({ ...phase, phase: phase.phase === 'Before' ? 'So far' : phase.phase }));
}
