import type { IsoDate } from '../calendar/iso-date';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import { noScoreWords } from '../measures/score';
import type { Outcome } from '../observations/observation';

/** An entry with what a reader may be shown of it. */
export interface ReportEntry {
  id: string;
  studentId: string;
  kind: 'observation' | 'abcNote' | 'tally';
  /** What it is of: “2a · Asks for a pause”, “Left the bench”. */
  title: string;
  /** Of an observation; else null. */
  goalId: string | null;
  /** The version of the goal under which it was made. */
  goalVersion: number;
  on: IsoDate;
  time: string;
  setting: string | null;
  /** Null when the reader is not shown who observed. */
  observer: string | null;
  /** Null when the reader is not shown notes; empty when there is none. */
  note: string | null;
  /** What happened, in words with its numbers. */
  sentence: string;
  /** Of an observation; else null. */
  outcome: Outcome | null;
  isCorrected: boolean;
  /** Whether it is a second observer's of a session that is counted already. */
  isSecond: boolean;
}

/** Which fields of a report its reader sees. */
export interface ReaderSees {
  notes: boolean;
  observers: boolean;
  /** Whether ABC notes and tallies are part of it. */
  behavior: boolean;
}

/** What an outcome says in the report. */
export function outcomeSentence(measure: MeasureDefinition, outcome: Outcome): string {
  if (outcome.reason !== null) return noScoreWords[outcome.reason].sentence;
  return measureOf(measure).sentence(measure, outcome.data);
}

/** The entry with the fields taken out that its reader may not see: they are not hidden, they are not there. */
export function asSeenBy<T extends Pick<ReportEntry, 'note' | 'observer'>>(
  entry: T,
  sees: Omit<ReaderSees, 'behavior'>,
): T {
  return { ...entry, note: sees.notes ? entry.note : null, observer: sees.observers ? entry.observer : null };
}

/** Lists of entries as one, newest first. */
export function newestFirst<T extends { on: IsoDate; time: string }>(
  lists: readonly (readonly T[])[],
  limit?: number,
): T[] {
  const moment = ({ on, time }: T) => `${on} ${time}`;
  return lists
    .flat()
    .sort((a, b) => moment(b).localeCompare(moment(a)))
    .slice(0, limit);
}
