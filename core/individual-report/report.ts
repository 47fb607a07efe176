import { dateSeenFrom, type IsoDate } from '../calendar/iso-date';
import type { SaidIncident } from '../entries/incidents/incident-sentence';
import type { Outcome } from '../entries/observation';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import { noScoreWords } from '../measures/score';
import { everything, type Shows } from '../sharing/visibility-rule';

/** An entry with what a reader may be shown of it. */
export interface ReportEntry {
  id: string;
  studentId: string;
  kind: 'observation' | 'incident' | 'count' | 'note' | 'reflection';
  /** What it is of: “2a · Asks for a pause”, “Left the bench”. */
  title: string;
  /** Of an observation; else null. */
  goalId: string | null;
  /** The version of the goal under which it was made. */
  goalVersion: number;
  on: IsoDate;
  time: string;
  /** Null where none was given, or the reader is not shown it. */
  location: string | null;
  /** Null when the reader is not shown who observed. */
  observer: string | null;
  /** Null when the reader is not shown notes; empty when there is none. */
  note: string | null;
  /** What happened, in words with its numbers. */
  sentence: string;
  /** Of an observation; else null. */
  outcome: Outcome | null;
  /** Counts what it has said; a correction makes the next. */
  version: number;
  isCorrected: boolean;
  /** Whether it is a second observer's of a session that is counted already. */
  isSecond: boolean;
}

/** What an outcome says in the report. */
export function outcomeSentence(measure: MeasureDefinition, outcome: Outcome): string {
  return outcomeSaid(measure, outcome, everything);
}

/**
 * What an outcome says to a reader: all of it, its figure alone, or only that there was one.
 *
 * @param soFar  of a measure that accumulates: everything up to and with this entry
 * @example outcomeSaid(measure, outcome, shownFields(['numbers'])) // '3 of 4 (75%).'
 */
export function outcomeSaid(
  measure: MeasureDefinition,
  outcome: Outcome,
  shows: Shows,
  soFar: number | null = null,
): string {
  if (outcome.reason !== null) return noScoreWords[outcome.reason].sentence;
  const kind = measureOf(measure);
  if (shows.has('breakdown')) return kind.sentence(outcome.data, soFar);
  const score = kind.score(outcome.data);
  if (!shows.has('numbers') || score.value === null) return 'Observed.';
  return `${kind.basis(score)} (${kind.said(score.value)}).`;
}

/** An ABC note without what its reader is not shown. */
export function incidentAsSeenBy(note: SaidIncident, shows: Shows): SaidIncident {
  return {
    ...note,
    functions: shows.has('function') ? note.functions : [],
    intensity: shows.has('intensity') ? note.intensity : null,
  };
}

/** The entry with the fields taken out that its reader may not see: they are not hidden, they are not there. */
export function asSeenBy<T extends Pick<ReportEntry, 'note' | 'observer' | 'location' | 'outcome'>>(
  entry: T,
  shows: Shows,
): T {
  const { note, observer, location, outcome } = entry;
  return {
    ...entry,
    note: shows.has('note') ? note : null,
    observer: shows.has('observer') ? observer : null,
    location: shows.has('location') ? location : null,
    outcome: shows.has('breakdown') ? outcome : null,
  };
}

/** Lists of entries as one, newest first, or oldest first. */
export function inOrder<T extends { on: IsoDate; time: string }>(
  lists: readonly (readonly T[])[],
  { limit, oldestFirst = false }: { limit?: number | undefined; oldestFirst?: boolean | undefined } = {},
): T[] {
  const moment = ({ on, time }: T) => `${on} ${time}`;
  const sign = oldestFirst ? -1 : 1;
  return lists
    .flat()
    .sort((a, b) => sign * moment(b).localeCompare(moment(a)))
    .slice(0, limit);
}

/** Lists of entries as one, newest first. */
export const newestFirst = <T extends { on: IsoDate; time: string }>(
  lists: readonly (readonly T[])[],
  limit?: number,
) => inOrder(lists, { limit });

/** A stretch in words: “Sep 8 to Dec 4”, with the year where it is another one; empty for all days. */
export function stretchWords(from: IsoDate | null, to: IsoDate | null, today: IsoDate): string {
  const begins = from && `${to ? '' : 'from '}${dateSeenFrom(from, today)}`;
  return [begins, to && `to ${dateSeenFrom(to, today)}`].filter(Boolean).join(' ');
}
