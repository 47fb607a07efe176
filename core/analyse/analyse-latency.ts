import type { IsoDate } from '../calendar/iso-date';
import { latencyDefinition, scoreLatency } from '../measures/latency/latency';

/** What the cues of a day come to. */
export interface LatencyDay {
  date: IsoDate;
  /** In seconds; the limit where the median lies beyond it, and null where no limit was given for that. */
  median: number | null;
  isBeyondLimit: boolean;
  /** Cues without a response. */
  misses: number;
  n: number;
}

/**
 * Times from cue to response, by day: a cue without a response took longer than the limit.
 *
 * @param cues  in any order; null seconds for no response
 */
export function analyseLatency(
  cues: readonly { date: IsoDate; seconds: number | null }[],
  limitSeconds: number | null,
): LatencyDay[] {
  return [...new Set(cues.map(({ date }) => date))].sort().map((day): LatencyDay => {
    const responses = cues.filter(({ date }) => date === day).map(({ seconds }) => seconds);
    const definition = latencyDefinition.parse({ kind: 'latency', limitSeconds: limitSeconds ?? undefined });
    const { value, isBeyond } = { isBeyond: false, ...scoreLatency(definition, { responses }) };
    return {
      date: day,
      median: isBeyond ? limitSeconds : value,
      isBeyondLimit: isBeyond,
      misses: responses.filter((seconds) => seconds === null).length,
      n: responses.length,
    };
  });
}
